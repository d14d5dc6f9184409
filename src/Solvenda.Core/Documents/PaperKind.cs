namespace Solvenda.Core.Documents;

/// <summary>A paper that goes to buyers.</summary>
public enum PaperKind
{
    /// <summary>What is offered.</summary>
    Quote,

    /// <summary>What was confirmed of an order.</summary>
    Acknowledgement,

    /// <summary>What an order will come to, before anything is owed.</summary>
    ProForma,

    /// <summary>What went.</summary>
    DeliveryNote,

    /// <summary>What is owed.</summary>
    Invoice,

    /// <summary>What goes back of an invoice.</summary>
    CreditNote,

    /// <summary>All that a buyer owes.</summary>
    Statement,

    /// <summary>What is late.</summary>
    Reminder,
}
