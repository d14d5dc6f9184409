using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Running;
using Solvenda.Bench;

switch (args)
{
    case ["world", var folder]:
        await LargeWorld.WriteAsync(folder);
        break;
    case ["sql", var folder]:
        await BareSql.MeasureAsync(folder);
        break;
    case ["edi", var x12, var edifact]:
        await File.WriteAllTextAsync(x12, MadeInterchange.X12(2_700));
        await File.WriteAllTextAsync(edifact, MadeInterchange.Edifact(1_800));
        break;
    case ["beside"]:
        Beside.Measure();
        break;
    case ["hostile"]:
        await HostileFiles.MeasureAsync();
        break;
    case ["edi-read", var file]:
        MadeInterchange.Measure(file);
        break;
    default:
        // Short by default, so that it is run at all; `--job long` for figures to argue about.
        var config = DefaultConfig.Instance.AddJob(Job.ShortRun.AsDefault());
        BenchmarkSwitcher
            .FromAssembly(typeof(Program).Assembly)
            .Run(args.Length == 0 ? ["--filter", "*"] : args, config);
        break;
}
