using System.Diagnostics;
using NetVips;
using ZestyPocket.Drawing.Photos;
PhotoEngine.Start();
var w = Stopwatch.StartNew();
Image plain = (Image.Black(1200, 900, bands: 3) + 77).Cast(Enums.BandFormat.Uchar).Copy(interpretation: Enums.Interpretation.Srgb);
var bytes = plain.JpegsaveBuffer(q: 80);
Console.WriteLine($"gen {w.ElapsedMilliseconds}"); w.Restart();
for (var i = 0; i < 10; i++) bytes = plain.JpegsaveBuffer(q: 80);
Console.WriteLine($"gen10 {w.ElapsedMilliseconds}"); w.Restart();
File.WriteAllBytes("/tmp/a.jpg", bytes);
for (var i = 0; i < 10; i++) { w.Restart(); PictureIntake.Inspect("/tmp/a.jpg"); var a = w.ElapsedMilliseconds; w.Restart(); PictureIntake.Thumbnail("/tmp/a.jpg", 512); var t1 = w.ElapsedMilliseconds; w.Restart(); using (var im = Image.Thumbnail("/tmp/a.jpg", 512, height: 512, size: Enums.Size.Down, failOn: Enums.FailOn.Error)) im.JpegsaveBuffer(q: 84, keep: Enums.ForeignKeep.None); var t2 = w.ElapsedMilliseconds; w.Restart(); using (var im = Image.Thumbnail("/tmp/a.jpg", 512, height: 512, size: Enums.Size.Down)) im.JpegsaveBuffer(q: 84); Console.WriteLine($"{a} {t1} {t2} {w.ElapsedMilliseconds}"); }
