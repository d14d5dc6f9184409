using System.Globalization;
using System.Net.Http.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Ways;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What tests of the queue call.</summary>
public abstract class QueueCalls(House house) : MoneyCalls(house)
{
    // Northgannet's order as their system writes it: its items, terms and place are on file.
    protected static string Order(string po, string quantity = "40") =>
        "ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*"
        + string.Create(
            CultureInfo.InvariantCulture,
            $"{Math.Abs(po.GetHashCode(StringComparison.Ordinal)) % 900_000_000 + 1:000000000}"
        )
        + "*0*P*>~GS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*901*X*004010~ST*850*0001~BEG*00*SA*"
        + po
        + "**20260305~CUR*BY*USD~FOB*CC**CIF Port of Gannet~ITD*01*3*****60~DTM*002*20270420~"
        + "N1*ST*Northgannet Depot 7*92*NG-07~N3*77 Pier Road~N4*Gannet*ME*04002*US~PO1*1*"
        + quantity
        + "*EA***VP*SHK-BOW-10~PO1*2*24*EA***VP*THM-SS-12~CTT*2~SE*13*0001~GE*1*901~IEA*1*000000901~";

    protected async Task<RequestRow> WeighedAsync(string number) =>
        await Answers.EventuallyAsync(async () =>
        {
            var row = await House.DbAsync(db =>
                db.Requests.AsNoTracking().SingleAsync(r => r.Number == number, Cancel)
            );
            return row.Weighed == row.Version || row.State == RequestState.Turned ? row : null;
        });

    protected static WaySaid Said(string channel, bool through, params string[] passes) =>
        new(channel, null, true, through, 90, passes, true, Havergal);

    protected async Task SetAsync(WaySaid said)
    {
        var whitlock = await House.AsAsync(Whitlock);
        var seen = await House.DbAsync(db =>
            db.Ways.Where(w => w.Channel == said.Channel && w.BuyerId == said.Buyer)
                .Select(w => w.Version)
                .FirstOrDefaultAsync(Cancel)
        );
        var set = await whitlock.PostAsJsonAsync("/api/setup/ways", new { said, seen }, Cancel);
        Assert.True(set.IsSuccessStatusCode, await set.Content.ReadAsStringAsync(Cancel));
    }

    /// <summary>Says what a way asks to be told; nothing goes through on it.</summary>
    protected async Task TellWayAsync(string channel, object settings)
    {
        var cass = await House.AsAsync(Whitlock);
        var seen = await (await cass.GetAsync($"/api/setup/ways/{channel}", Cancel)).JsonAsync();
        var said = new
        {
            channel,
            buyer = (long?)null,
            keeper = (long?)null,
            open = true,
            through = false,
            leastSurePercent = 90,
            passes = Array.Empty<string>(),
            newAddresses = false,
            settings,
        };
        var version = seen.GetProperty("rule").GetProperty("version").GetInt64();
        var set = await cass.PostAsJsonAsync("/api/setup/ways", new { said, seen = version }, Cancel);
        Assert.True(set.IsSuccessStatusCode, await set.Content.ReadAsStringAsync(Cancel));
    }

    protected const long Whitlock = 10;
}
