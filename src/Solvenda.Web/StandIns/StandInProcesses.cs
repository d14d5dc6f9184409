using System.Diagnostics;
using Solvenda.Web.Outside;

namespace Solvenda.Web.StandIns;

/// <summary>
/// Starts the demo's marketplace and web shop, each a process of its own, and again where one ends; they end with the
/// house.
/// </summary>
public sealed partial class StandInProcesses(
    OutsideFolders folders,
    StandInPlaces places,
    ILogger<StandInProcesses> log
) : BackgroundService
{
    /// <summary>The channels that the demo has stand-ins for.</summary>
    public static readonly string[] Names = ["harbourmart", "brinemoor-direct"];

    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(2);

    protected override Task ExecuteAsync(CancellationToken stoppingToken) =>
        Task.WhenAll(Names.Select(n => KeepAsync(n, stoppingToken)));

    private async Task KeepAsync(string name, CancellationToken cancel)
    {
        while (!cancel.IsCancellationRequested)
        {
            try
            {
                await RunAsync(name, cancel);
                await Task.Delay(Pause, cancel);
            }
            catch (OperationCanceledException)
            {
                return;
            }
            catch (Exception e) when (e is InvalidOperationException or System.ComponentModel.Win32Exception)
            {
                Failed(log, e, name);
                return;
            }
        }
    }

    private async Task RunAsync(string name, CancellationToken cancel)
    {
        // A program of its own starts itself; what runs as a library is run by dotnet.
        var program = typeof(StandInProcesses).Assembly.Location;
        var itself = Environment.ProcessPath == Path.ChangeExtension(program, null);
        var start = new ProcessStartInfo(itself ? Environment.ProcessPath! : "dotnet")
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            UseShellExecute = false,
        };
        if (!itself)
            start.ArgumentList.Add(program);
        foreach (var arg in new[] { "stand-in", "--name", name, "--folder", folders.Shop(name), "--port", "0" })
            start.ArgumentList.Add(arg);
        using var process = Process.Start(start) ?? throw new InvalidOperationException($"{name} did not start");
        try
        {
            while (await process.StandardOutput.ReadLineAsync(cancel) is { } line)
            {
                if (line.StartsWith("ready ", StringComparison.Ordinal))
                    places.Set(name, line["ready ".Length..]);
            }
            await process.WaitForExitAsync(cancel);
        }
        finally
        {
            process.StandardInput.Close();
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "The stand-in {Name} does not run")]
    private static partial void Failed(ILogger logger, Exception exception, string name);
}
