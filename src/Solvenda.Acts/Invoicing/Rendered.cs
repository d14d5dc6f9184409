using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Shipping;

namespace Solvenda.Acts.Invoicing;

/// <summary>Services: whoever invoices says that they are done; there is nothing to pick, and nobody gets a
/// note.</summary>
public sealed class Rendered(Releasing releasing, Sending sending)
{
    /// <summary>Notes that the services of an order are done.</summary>
    public async Task NoteAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        foreach (var done in await releasing.ReleaseAsync(work, open, [], cancel))
            await sending.SendAsync(work, open, done, asAsked: true, cancel, tells: false);
    }
}
