using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Acts.Notices;
using Solvenda.Acts.People;
using Solvenda.Acts.Policies;
using Solvenda.Acts.Quotes;
using Solvenda.Acts.Requests;
using Solvenda.Acts.Sheets;
using Solvenda.Data;

namespace Solvenda.Acts;

/// <summary>Everything that acts need, and the acts themselves.</summary>
public static class ActServices
{
    /// <summary>Every act of the house, by its type.</summary>
    public static IReadOnlyList<Type> All { get; } =
    [
        .. typeof(Act)
            .Assembly.GetTypes()
            .Where(t => !t.IsAbstract && t.IsAssignableTo(typeof(Act)))
            .OrderBy(t => t.FullName, StringComparer.Ordinal),
    ];

    public static IServiceCollection AddActs(this IServiceCollection services)
    {
        foreach (var act in All)
            services.AddSingleton(typeof(Act), act);
        return services
            .AddSingleton<OutboxSignal>()
            .AddSingleton<Pulse>()
            .AddSingleton<ActRunner>()
            .AddSingleton<LinesAtHand>()
            .AddSingleton<HouseBooks>()
            .AddSingleton<SheetLoader>()
            .AddSingleton<Judge>()
            .AddSingleton<Settling>()
            .AddSingleton<Planning.Renewing>()
            .AddSingleton<Orders.Cancelling>()
            .AddSingleton<Orders.Confirming>()
            .AddSingleton<Shipping.Releasing>()
            .AddSingleton<Shipping.Sending>()
            .AddSingleton<Invoicing.Invoicing>()
            .AddSingleton<Invoicing.Rendered>()
            .AddSingleton<Invoicing.DepositInvoices>()
            .AddSingleton<Invoicing.Crediting>()
            .AddSingleton<Reaching>()
            .AddSingleton<AskLoader>()
            .AddSingleton<AskClock>()
            .AddSingleton<Telling>()
            .AddSingleton<Deciding>()
            .AddSingleton<Invitations>()
            .AddSingleton<PastSheets>()
            .AddSingleton<Offers>()
            .AddSingleton<Reader>()
            .AddSingleton<Turning>()
            .AddSingleton<Weighing>()
            .AddSingleton<ReadingBell>()
            .AddSingleton<PassingBell>()
            .AddSingleton<Intake>();
    }
}
