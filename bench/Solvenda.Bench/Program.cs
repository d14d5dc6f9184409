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
    default:
        // Short by default, so that it is run at all; `--job long` for figures to argue about.
        var config = DefaultConfig.Instance.AddJob(Job.ShortRun.AsDefault());
        BenchmarkSwitcher.FromAssembly(typeof(Program).Assembly).Run(args.Length == 0 ? ["--filter", "*"] : args, config);
        break;
}
