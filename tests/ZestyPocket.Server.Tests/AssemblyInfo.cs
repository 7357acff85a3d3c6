using Xunit.v3;

// Hangfire's storage is one a process: hosts run one after another.
[assembly: Parallelization(Mode = Xunit.Sdk.ParallelMode.None)]
