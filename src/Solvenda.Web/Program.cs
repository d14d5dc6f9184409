using Solvenda.Web;
using Solvenda.Web.Requests;
using Solvenda.Web.StandIns;

if (args is ["read", ..])
    return await ReadCommand.RunAsync(args[1..], Console.Out, Console.Error);
if (args is ["stand-in", ..])
    return await MarketStandIn.RunAsync(args[1..]);
if (args is ["check", ..])
    return await CheckCommand.RunAsync(args[1..], Console.Out, Console.Error);
if (args is ["backup", ..])
    return await BackupCommands.BackupAsync(args[1..], Console.Out, Console.Error);
if (args is ["restore", ..])
    return await BackupCommands.RestoreAsync(args[1..], Console.Out, Console.Error);

var builder = WebApplication.CreateBuilder(args);
builder.Logging.AddFilter("Microsoft", LogLevel.Warning).AddFilter("System.Net.Http", LogLevel.Warning);

// That its keys lie as files beside the database is meant.
builder.Logging.AddFilter("Microsoft.AspNetCore.DataProtection", LogLevel.Error);
builder.WebHost.ConfigureKestrel(
    (context, kestrel) =>
    {
        var options = SolvendaOptions.From(context.Configuration);
        kestrel.Listen(options.Listen, options.Port);
        kestrel.AddServerHeader = false;
    }
);
builder.AddSolvenda();
if (!Startup.IsGeneratingApi)
    Startup.ClearForFresh(SolvendaOptions.From(builder.Configuration));

var app = builder.Build();
app.UseSolvenda();
app.Lifetime.ApplicationStarted.Register(() =>
{
    var options = app.Services.GetRequiredService<SolvendaOptions>();
    Console.WriteLine($"Solvenda is ready: http://{new System.Net.IPEndPoint(options.Listen, options.Port)}");
});

// The build runs this program to describe the API; it has no database then.
if (!Startup.IsGeneratingApi)
    // Each takes half of a start, and neither needs the other.
    await Task.WhenAll(Task.Run(app.DescribeDoors), app.PrepareAsync());
await app.RunAsync();
return 0;
