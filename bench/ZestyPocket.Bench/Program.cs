using ZestyPocket.Bench;

// Usage: ZestyPocket.Bench import|print|pack|all. ./bench/run sets up what they need.
var wanted = args.FirstOrDefault() ?? "all";
if (wanted is "import" or "all")
{
    await ImportBench.RunAsync();
}

if (wanted is "print" or "all")
{
    PrintBench.Run();
}

if (wanted is "pack" or "all")
{
    PackBench.Run();
}
