using System.Diagnostics;
using ZestyPocket.Server.Demo;

foreach (var scene in Enum.GetValues<Scene>())
{
    var shot = new DemoShot("x", scene, 3, 2016, 1512, new NodaTime.LocalDateTime(2026, 5, 5, 12, 0), "A B", 60, 1, 1);
    DemoPictures.Jpeg(shot);
    var w = Stopwatch.StartNew();
    using (var b = new DemoScenes(3, scene, 12).Paint(896, 672)) { }
    var paint = w.ElapsedMilliseconds;
    w.Restart();
    var n = DemoPictures.Jpeg(shot).Length;
    Console.WriteLine($"{scene,-10} paint {paint} ms, all {w.ElapsedMilliseconds} ms, {n / 1024} kB");
}
