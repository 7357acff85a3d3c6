using Xunit.v3;

// One server with jobs and one browser at a time: two cores have to do for both.
[assembly: Parallelization(Mode = Xunit.Sdk.ParallelMode.None)]
