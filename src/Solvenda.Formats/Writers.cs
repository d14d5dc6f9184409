using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Solvenda.Core.Billing;
using Solvenda.Core.Ordering;
using Solvenda.Formats.Channels;
using Solvenda.Formats.Edi;
using Solvenda.Formats.Edifact;
using Solvenda.Formats.Ubl;
using Solvenda.Formats.X12;

namespace Solvenda.Formats;

/// <summary>A message as it goes out.</summary>
/// <param name="To">Whom it is for, by the id that they use themselves.</param>
public sealed record WrittenMessage(string Name, string To, byte[] Bytes)
{
    /// <summary>The number of its interchange and group, by which it is acknowledged; null where it has none.</summary>
    public string? Control { get; init; }
}

/// <summary>
/// Writes the answer to an order in the form that the order came in. One file each, one line in <see cref="Writers"/>.
/// </summary>
public interface IOrderAnswer
{
    /// <summary>The form of the orders that it answers.</summary>
    Syntax Answers { get; }

    /// <param name="original">The order as it came.</param>
    /// <param name="control">Our interchange control number.</param>
    /// <returns>Null where the original cannot be opened any more.</returns>
    WrittenMessage? Write(ConfirmedOrder order, string original, int control, DateTime at);
}

/// <summary>
/// Writes an invoice in the form that its order came in. One file each, one line in <see cref="Writers"/>.
/// </summary>
public interface IInvoiceWriter
{
    /// <summary>The form of the orders whose invoices it writes.</summary>
    Syntax Answers { get; }

    /// <param name="original">The order as it came.</param>
    /// <param name="control">Our interchange control number.</param>
    /// <returns>Null where the original cannot be opened any more, or the form cannot say it.</returns>
    WrittenMessage? Write(IssuedInvoice invoice, string original, int control, DateTime at);
}

/// <summary>Writes the functional acknowledgement of an interchange: taken, or what is wrong and where.</summary>
public interface IInterchangeAnswer
{
    Syntax Answers { get; }

    /// <param name="number">Number of the request, for the file's name.</param>
    WrittenMessage Write(EdiInterchange interchange, string number, int control, DateTime at);
}

/// <summary>The writers there are.</summary>
public static class Writers
{
    private static readonly ImmutableArray<IOrderAnswer> OrderAnswers =
    [
        new OrderAnswer(),
        new OrderResponse(),
        new UblOrderResponse(),
        new ChannelAnswer(),
    ];

    private static readonly ImmutableArray<IInvoiceWriter> InvoiceWriters =
    [
        new X12Invoice(),
        new EdifactInvoice(),
        new UblInvoiceWriter(),
    ];

    private static readonly ImmutableArray<IInterchangeAnswer> InterchangeAnswers =
    [
        new FunctionalAnswer(),
        new SyntaxAnswer(),
    ];

    /// <param name="syntax">As requests keep it: the name of a <see cref="Syntax"/>, or empty.</param>
    public static bool AnswersOrders(string syntax) => OrderAnswer(syntax) is not null;

    public static IOrderAnswer? OrderAnswer(string syntax) =>
        OrderAnswers.FirstOrDefault(w => w.Answers.ToString() == syntax);

    /// <inheritdoc cref="AnswersOrders" />
    public static IInvoiceWriter? Invoice(string syntax) =>
        InvoiceWriters.FirstOrDefault(w => w.Answers.ToString() == syntax);

    /// <summary>
    /// Null where the form is not answered, or the interchange is an answer itself: an answer is never answered.
    /// </summary>
    public static IInterchangeAnswer? InterchangeAnswer(Syntax syntax, EdiInterchange interchange)
    {
        ArgumentNullException.ThrowIfNull(interchange);
        return
            interchange.Sender.Length == 0
            || interchange.Messages.All(m => m.Type is "997" or "999" or "CONTRL" or "APERAK")
            ? null
            : InterchangeAnswers.FirstOrDefault(w => w.Answers == syntax);
    }

    private sealed class FunctionalAnswer : IInterchangeAnswer
    {
        public Syntax Answers => Syntax.X12;

        public WrittenMessage Write(EdiInterchange interchange, string number, int control, DateTime at) =>
            new(
                $"997-{number}.x12",
                interchange.Sender,
                Encoding.Latin1.GetBytes(FunctionalAcknowledgement.Write(interchange, control, at))
            );
    }

    private sealed class SyntaxAnswer : IInterchangeAnswer
    {
        public Syntax Answers => Syntax.Edifact;

        public WrittenMessage Write(EdiInterchange interchange, string number, int control, DateTime at) =>
            new(
                $"CONTRL-{number}.edi",
                interchange.Sender,
                Encoding.Latin1.GetBytes(
                    SyntaxReport.Write(interchange, control.ToString(CultureInfo.InvariantCulture), at)
                )
            );
    }
}
