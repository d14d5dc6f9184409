using Solvenda.Web;
using Solvenda.Web.Requests;

if (args is ["read", ..])
    return await ReadCommand.RunAsync(args[1..], Console.Out, Console.Error);
if (args is ["check", ..])
    return await CheckCommand.RunAsync(args[1..], Console.Out, Console.Error);

var builder = WebApplication.CreateBuilder(args);
builder.Logging.AddFilter("Microsoft", LogLevel.Warning);
builder.WebHost.ConfigureKestrel(
    (context, kestrel) => kestrel.ListenLocalhost(context.Configuration.GetValue("port", SolvendaOptions.DefaultPort))
);
builder.AddSolvenda();

var app = builder.Build();
app.UseSolvenda();
app.Lifetime.ApplicationStarted.Register(() =>
    Console.WriteLine($"Solvenda is ready: http://127.0.0.1:{app.Services.GetRequiredService<SolvendaOptions>().Port}")
);

// The build runs this program to describe the API; it has no database then.
if (!Startup.IsGeneratingApi)
    await app.PrepareAsync();
await app.RunAsync();
return 0;
