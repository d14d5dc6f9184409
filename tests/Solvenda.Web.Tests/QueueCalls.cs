using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;

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
}
