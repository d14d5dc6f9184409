using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Running;

// Short by default, so that it is run at all; `--job long` for figures to argue about.
var config = DefaultConfig.Instance.AddJob(Job.ShortRun.AsDefault());
BenchmarkSwitcher.FromAssembly(typeof(Program).Assembly).Run(args.Length == 0 ? ["--filter", "*"] : args, config);
