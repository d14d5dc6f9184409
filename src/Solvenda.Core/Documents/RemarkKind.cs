namespace Solvenda.Core.Documents;

/// <summary>What somebody is to do about a remark.</summary>
public enum RemarkKind
{
    /// <summary>How it is to be delivered.</summary>
    Delivery,

    /// <summary>What is to stand on papers or parcels, or not to.</summary>
    Printed,

    /// <summary>A certificate or another paper that is to come with the goods.</summary>
    Certificate,

    /// <summary>A question that waits for an answer.</summary>
    Question,
}
