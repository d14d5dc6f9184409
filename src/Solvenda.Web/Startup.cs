using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Acts.Proofs;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Demo;
using Solvenda.Data.Rows;
using Solvenda.Web.Approvals;
using Solvenda.Web.Buyers;
using Solvenda.Web.Channels;
using Solvenda.Web.Channels.Mail;
using Solvenda.Web.Credit;
using Solvenda.Web.Demo;
using Solvenda.Web.Desk;
using Solvenda.Web.Documents;
using Solvenda.Web.Dossiers;
using Solvenda.Web.Finder;
using Solvenda.Web.House;
using Solvenda.Web.Invoices;
using Solvenda.Web.Items;
using Solvenda.Web.Ledger;
using Solvenda.Web.Lists;
using Solvenda.Web.Machines;
using Solvenda.Web.Notices;
using Solvenda.Web.Orders;
using Solvenda.Web.Outside;
using Solvenda.Web.Owing;
using Solvenda.Web.Piles;
using Solvenda.Web.Planning;
using Solvenda.Web.Portal;
using Solvenda.Web.Post;
using Solvenda.Web.Prices;
using Solvenda.Web.Quotes;
using Solvenda.Web.Records;
using Solvenda.Web.Requests;
using Solvenda.Web.Returns;
using Solvenda.Web.Security;
using Solvenda.Web.Setup;
using Solvenda.Web.Sheets;
using Solvenda.Web.Shipping;
using Solvenda.Web.StandIns;
using Solvenda.Web.Workers;

namespace Solvenda.Web;

/// <summary>What the app is made of, in the order in which it is put together.</summary>
public static partial class Startup
{
    public static void AddSolvenda(this WebApplicationBuilder builder)
    {
        var services = builder.Services;
        services.AddSingleton(p => SolvendaOptions.From(p.GetRequiredService<IConfiguration>()));
        services.AddSingleton(p =>
            SellerOf(p.GetRequiredService<SolvendaOptions>(), p.GetRequiredService<IConfiguration>())
        );
        services.AddSingleton(p => new SealedHeads(
            SolvendaOptions.ProofIn(p.GetRequiredService<SolvendaOptions>().DataFolder)
        ));
        services.AddSingleton(p => HouseAddressOf(p.GetRequiredService<SolvendaOptions>()));
        services.AddSingleton(TimeProvider.System);
        services.AddSingleton(p => new HouseClock(
            p.GetRequiredService<TimeProvider>(),
            TimeZoneInfo.FindSystemTimeZoneById(p.GetRequiredService<IConfiguration>()["zone"] ?? "Europe/Dublin")
        ));
        services.AddDbContextFactory<SolvendaDb>(
            (p, o) => o.UseSolvenda(Database.FileIn(p.GetRequiredService<SolvendaOptions>().DataFolder))
        );
        services.AddScoped(p => p.GetRequiredService<IDbContextFactory<SolvendaDb>>().CreateDbContext());
        services.AddSingleton<IPasswordHasher<Person>, PasswordHasher<Person>>();
        services.AddSingleton<PriceBooks>().AddSingleton<MailRoute>().AddSingleton<OutsideFolders>();
        services.AddActs();
        services
            .AddSingleton<Strip>()
            .AddSingleton<DocumentViews>()
            .AddScoped<OrderDoor>()
            .AddScoped<MachineOrders>()
            .AddSingleton<Presence>()
            .AddSingleton<ShownLines>()
            .AddSingleton<OfferViews>()
            .AddSingleton<AskViews>()
            .AddSingleton<CreditLists>();
        services.AddChannels();
        AddWorkers(services, builder.Configuration);
        AddDoors(services);
    }

    // What goes on by itself.
    private static void AddWorkers(IServiceCollection services, IConfiguration settings)
    {
        services
            .AddSingleton<ImportWorker>()
            .AddSingleton<RoundWorker>()
            .AddSingleton<Troubles>()
            .AddSingleton<Courtesy>()
            .AddSingleton<ChannelSignal>();
        services.Configure<HostOptions>(o =>
            o.BackgroundServiceExceptionBehavior = BackgroundServiceExceptionBehavior.Ignore
        );
        if (!IsGeneratingApi)
            services
                .AddHostedService<OutboxWorker>()
                .AddHostedService<ChannelInbox>()
                .AddHostedService<ReadingWorker>()
                .AddHostedService<PassingWorker>()
                .AddHostedService<UpkeepWorker>()
                .AddHostedService<AskWorker>()
                .AddHostedService<ArrivalsWorker>()
                .AddHostedService<CarrierWorker>()
                .AddHostedService(p => p.GetRequiredService<RoundWorker>())
                .AddHostedService(p => p.GetRequiredService<ImportWorker>());
        if (!IsGeneratingApi && (settings.GetValue("demo", false) || settings["smtpPort"] is not null))
            services.AddHostedService<SmtpListener>();
        if (!IsGeneratingApi && settings.GetValue("demo", false) && settings.GetValue("standIns", true))
            services.AddHostedService<StandInProcesses>().AddHostedService<CarrierStandIn>();
        services.AddSingleton<DemoDay>();
        if (!IsGeneratingApi && settings.GetValue("demo", false))
            services.AddHostedService(p => p.GetRequiredService<DemoDay>());
    }

    // How what comes in by HTTP is let in, read and answered.
    private static void AddDoors(IServiceCollection services)
    {
        services.AddAccess();
        services.AddExceptionHandler<Problems>().AddProblemDetails(o => o.CustomizeProblemDetails = Problems.Complete);
        services.Configure<RouteHandlerOptions>(o => o.ThrowOnBadRequest = true);
        services.ConfigureHttpJsonOptions(o =>
        {
            o.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
            o.SerializerOptions.RespectNullableAnnotations = true;
            o.SerializerOptions.RespectRequiredConstructorParameters = true;
            o.SerializerOptions.TypeInfoResolver = new DefaultJsonTypeInfoResolver
            {
                Modifiers = { WholeLists.Modify },
            };
            o.SerializerOptions.Converters.Add(
                new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false)
            );
        });
        services.AddSingleton<Buckets>();
        services
            .AddOptions<HostFilteringOptions>()
            .Configure<SolvendaOptions>((hosts, o) => hosts.AllowedHosts = HostsOf(o));
        services
            .AddOptions<ForwardedHeadersOptions>()
            .Configure<SolvendaOptions>(
                (forwarded, o) =>
                {
                    forwarded.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
                    forwarded.KnownIPNetworks.Clear();
                    forwarded.KnownProxies.Clear();
                    foreach (var proxy in o.Proxies)
                        forwarded.KnownProxies.Add(proxy);
                }
            );
        services.AddOpenApi("v1");
        services.AddResponseCompression(o => o.EnableForHttps = true);
    }

    // Browsers that call this house by any other name are answered nothing.
    private static List<string> HostsOf(SolvendaOptions options) =>
        [
            "localhost",
            "127.0.0.1",
            "[::1]",
            .. options.PublicAddress is { } address ? new[] { new Uri(address).Host } : [],
            .. options.Hosts,
        ];

    public static void UseSolvenda(this WebApplication app)
    {
        if (app.Services.GetRequiredService<SolvendaOptions>().Proxies.Length > 0)
            app.UseForwardedHeaders();
        app.UseExceptionHandler().UseStatusCodePages();
        app.UseResponseCompression();
        app.UseSecurityHeaders(Headers(ScriptHashes(app.Environment.WebRootPath)));
        app.UseMiddleware<SameOrigin>();
        app.Use(NothingOfTheApiIsKept);
        app.Use(EveryScreenIsOnePage);
        app.UseStaticFiles(new StaticFileOptions { OnPrepareResponse = c => Cache(c.Context) });
        app.UseRouting();
        app.UseAuthentication();
        app.UseAuthorization();
        app.Use(app.Services.GetRequiredService<Courtesy>().Serve);

        app.MapOpenApi().AllowAnonymous();
        app.MapDoors();
        // The document that the client is generated from knows the demo's doors too; without the demo they are not
        // there.
        if (app.Configuration.GetValue("demo", false) || IsGeneratingApi)
            app.MapDemo();
    }

    /// <summary>
    /// Learns how what the doors take and answer is written as JSON, which the first look at the doors does otherwise.
    /// </summary>
    public static void DescribeDoors(this WebApplication app)
    {
        foreach (var source in ((IEndpointRouteBuilder)app).DataSources)
            _ = source.Endpoints;
    }

    /// <summary>
    /// Takes the demo of before away where a fresh one is asked for. It comes before any service is made: those of the
    /// folders outside make them when they are first asked for, by whichever thread that is.
    /// </summary>
    public static void ClearForFresh(SolvendaOptions options)
    {
        ArgumentNullException.ThrowIfNull(options);
        if (options is not { Fresh: true, Demo: true } || !Directory.Exists(options.DataFolder))
            return;
        foreach (var file in Directory.GetFiles(options.DataFolder, "solvenda.db*"))
            File.Delete(file);
        foreach (
            var folder in new[] { SolvendaOptions.ProofIn(options.DataFolder), OutsideFolders.In(options.DataFolder) }
        )
            if (Directory.Exists(folder))
                Directory.Delete(folder, recursive: true);
    }

    /// <summary>Makes the database ready, fills the demo world where asked, and says how to get in.</summary>
    public static async Task PrepareAsync(this WebApplication app)
    {
        var options = app.Services.GetRequiredService<SolvendaOptions>();
        Database.PrepareFolder(options.DataFolder);
        var held = Database.Hold(options.DataFolder);
        app.Lifetime.ApplicationStopped.Register(held.Dispose);
        await using var db = await app
            .Services.GetRequiredService<IDbContextFactory<SolvendaDb>>()
            .CreateDbContextAsync();
        await Database.BringUpAsync(db, CancellationToken.None);
        await Database.CountAsync(db, CancellationToken.None);
        var seller = app.Services.GetRequiredService<Seller>();
        await seller.ReadAsync(db, CancellationToken.None);
        if (await db.People.AnyAsync())
            return;
        var now = app.Services.GetRequiredService<HouseClock>().UtcNow;
        if (options.Demo)
        {
            var world = new DemoWorld(db, app.Services.GetRequiredService<PriceBooks>(), now);
            await world.WriteAsync(Tokens.Sha256(DemoWorld.IntegrationKey), CancellationToken.None);
            await seller.ReadAsync(db, CancellationToken.None);
            // The messages of the day come in by the folders, like any others.
            var folders = app.Services.GetRequiredService<OutsideFolders>();
            // They came over the night and the morning, the last just now.
            var age = TimeSpan.Zero;
            foreach (var (channel, name, bytes) in world.Messages())
            {
                var folder = channel switch
                {
                    "edi" => folders.EdiIn,
                    "mail" => folders.MailIn,
                    _ => Directory.CreateDirectory(Path.Combine(folders.Shop(channel), "feed")).FullName,
                };
                await OutsideFolders.WriteWholeAsync(folder, name, bytes, CancellationToken.None);
                File.SetLastWriteTimeUtc(Path.Combine(folder, name), DateTime.UtcNow - age);
                age = (age * 1.4) + TimeSpan.FromMinutes(4);
            }
            var (statement, said) = await world.StatementAsync();
            await OutsideFolders.WriteWholeAsync(folders.BankIn, statement, said, CancellationToken.None);
            await Database.CountAsync(db, CancellationToken.None);
            return;
        }
        var token = Tokens.New();
        db.OneTimeLinks.RemoveRange(db.OneTimeLinks);
        db.OneTimeLinks.Add(new OneTimeLink { Hash = Tokens.Sha256(token), ExpiresAt = now.AddHours(24) });
        await db.SaveChangesAsync();
        Console.WriteLine(
            $"Nobody can sign in yet. This link makes the first administrator, once, within 24 hours: {options.PublicAddress ?? $"http://127.0.0.1:{options.Port}"}/first/{token}"
        );
    }

    /// <summary>
    /// True while the build writes the OpenAPI document: the tool runs the program without starting it.
    /// </summary>
    public static bool IsGeneratingApi =>
        System.Reflection.Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

    /// <summary>The settings of a command that starts no server.</summary>
    public static IConfiguration Settings() =>
        new ConfigurationBuilder()
            .AddJsonFile(Path.Combine(AppContext.BaseDirectory, "appsettings.json"), optional: true)
            .AddEnvironmentVariables()
            .Build();

    // The house's own people reach it also where buyers do not.
    private static HouseAddress HouseAddressOf(SolvendaOptions options) =>
        new(options.PublicAddress ?? $"http://{new System.Net.IPEndPoint(options.Listen, options.Port)}");

    public static Seller SellerOf(SolvendaOptions options, IConfiguration c) =>
        options.Demo
            ? DemoWorld.Seller
            : new Seller(
                c["seller:name"] ?? "Our house",
                c["seller:country"] ?? "IE",
                Currency.Of(c["seller:currency"] ?? "EUR"),
                "house",
                [.. c.GetSection("seller:address").Get<string[]>() ?? ["address not set"]],
                c["seller:mail"] ?? "orders@house.example"
            );

    // The screens find their way by themselves; what is no screen (the API, a file) is answered as what it is.
    private static Task EveryScreenIsOnePage(HttpContext http, RequestDelegate next)
    {
        var path = http.Request.Path;
        if (
            (HttpMethods.IsGet(http.Request.Method) || HttpMethods.IsHead(http.Request.Method))
            && !Path.HasExtension(path.Value)
            && !NoScreens.Any(n => path.StartsWithSegments(n))
        )
            http.Request.Path = "/index.html";
        return next(http);
    }

    private static readonly string[] NoScreens = ["/api", "/openapi", "/healthz"];

    private static Task NothingOfTheApiIsKept(HttpContext http, RequestDelegate next)
    {
        if (http.Request.Path.StartsWithSegments("/api"))
            http.Response.Headers.CacheControl = "no-store";
        return next(http);
    }

    private static void Cache(HttpContext http) =>
        // Files under _app carry their hash in the name and never change.
        http.Response.Headers.CacheControl = http.Request.Path.StartsWithSegments("/_app/immutable")
            ? "public, max-age=31536000, immutable"
            : "no-cache";

    private static HeaderPolicyCollection Headers(IReadOnlyList<string> scriptHashes) =>
        new HeaderPolicyCollection()
            .AddDefaultSecurityHeaders()
            .RemoveServerHeader()
            .AddCustomHeader(
                "Content-Security-Policy",
                $"default-src 'self'; script-src 'self' {string.Join(' ', scriptHashes.Select(h => $"'sha256-{h}'"))}; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'self'; frame-src 'self'"
            );

    // The page has one inline script, which starts the app; its hash is allowed, and no other.
    private static IReadOnlyList<string> ScriptHashes(string? root)
    {
        var index = root is null ? null : Path.Combine(root, "index.html");
        return index is not null && File.Exists(index)
            ?
            [
                .. InlineScript()
                    .Matches(File.ReadAllText(index))
                    .Select(m => Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(m.Groups[1].Value)))),
            ]
            : [];
    }

    [GeneratedRegex(@"<script(?![^>]*\ssrc=)[^>]*>(.*?)</script>", RegexOptions.Singleline)]
    private static partial Regex InlineScript();
}
