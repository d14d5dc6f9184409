using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.DataProtection.KeyManagement;
using Microsoft.AspNetCore.DataProtection.Repositories;
using Microsoft.Extensions.Logging.Abstractions;
using Solvenda.Acts.Ways;
using Solvenda.Web.Channels.Mail;
using Solvenda.Web.Channels.Market;
using Solvenda.Web.Security;
using Solvenda.Web.StandIns;

namespace Solvenda.Web.Channels;

/// <summary>The ways in and out, a line each: where another is added.</summary>
public static class ChannelServices
{
    public static void AddChannels(this IServiceCollection services)
    {
        services
            .AddSingleton<IChannel, MailChannel>()
            .AddSingleton<IChannel, ImapChannel>()
            .AddSingleton<IChannel, EdiChannel>()
            .AddSingleton<IChannel, FileChannel>()
            .AddSingleton<IChannel>(p => Market(p, "harbourmart", "marketplace"))
            .AddSingleton<IChannel>(p => Market(p, "brinemoor-direct", "our own web shop"))
            .AddSingleton<IChannel, PaperChannel>()
            .AddSingleton<IChannel, SalesChannelAnswers>()
            .AddSingleton<IChannel, SupplyChannel>()
            .AddSingleton<IChannel, CarrierChannel>();
        services.AddSingleton<IReadOnlyList<IWayIn>>(p => [.. p.GetServices<IChannel>()]);
        services.AddSingleton<ISecretBox, SecretBox>().AddSingleton<WaySaidBook>();
        services.AddHttpClient().AddSingleton<StandInPlaces>();
        services
            .AddDataProtection()
            .SetApplicationName("Solvenda")
            .Services.AddOptions<KeyManagementOptions>()
            .Configure<SolvendaOptions>(
                (keys, o) =>
                    keys.XmlRepository = new FileSystemXmlRepository(
                        Directory.CreateDirectory(Path.Combine(o.DataFolder, "keys")),
                        NullLoggerFactory.Instance
                    )
            );
    }

    private static MarketChannel Market(IServiceProvider services, string name, string words) =>
        ActivatorUtilities.CreateInstance<MarketChannel>(services, name, words);
}
