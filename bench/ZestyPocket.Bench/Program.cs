using ZestyPocket.Bench;

// Usage: ZestyPocket.Bench import|photos|open|household|print|year|book|pack|fit|pages|placing|look|all.
// ./bench/run sets up what they need.
var wanted = args.FirstOrDefault() ?? "all";
if (args is ["paint", var folder])
{
    ImportBench.Paint(folder);
    return;
}

if (args is ["proof", var proofFolder])
{
    ProofBook.Write(proofFolder);
    return;
}

if (args is ["scenes", var scenesFile])
{
    SceneSheet.Write(scenesFile);
    return;
}

if (wanted is "import" or "all")
{
    await ImportBench.RunAsync();
}

if (wanted is "photos" or "all")
{
    await PhotosBench.RunAsync();
}

if (wanted is "open" or "all")
{
    await OpenBench.RunAsync();
}

if (wanted is "household" or "all")
{
    await HouseholdBench.RunAsync();
}

if (wanted is "print" or "all")
{
    PrintBench.Run();
}

if (wanted is "year" or "all")
{
    YearBench.Run();
}

if (wanted is "book" or "all")
{
    BookBench.Run();
}

if (wanted is "pack" or "all")
{
    PackBench.Run();
}

if (wanted is "fit" or "all")
{
    FitBench.Run();
}

if (wanted is "pages" or "all")
{
    PagesBench.Run();
}

if (wanted is "placing" or "all")
{
    PlacingBench.Run();
}

if (wanted is "look" or "all")
{
    LookBench.Run();
}
