using System.Diagnostics;

namespace ZestyPocket.Server.Tests.Hosting;

/// <summary>Small video files made for the tests.</summary>
public static class Films
{
    /// <summary>Two seconds of a moving test picture.</summary>
    public static byte[] Moving(string metadata)
    {
        var path = Path.Combine(Path.GetTempPath(), $"zesty-{Guid.NewGuid():N}.mp4");
        try
        {
            using var made = Process.Start(
                "ffmpeg",
                [
                    "-v",
                    "error",
                    "-f",
                    "lavfi",
                    "-i",
                    "testsrc=duration=2:size=320x240:rate=25",
                    "-c:v",
                    "mpeg4",
                    "-metadata",
                    metadata,
                    path,
                ]
            )!;
            made.WaitForExit();
            made.ExitCode.ShouldBe(0);
            return File.ReadAllBytes(path);
        }
        finally
        {
            File.Delete(path);
        }
    }
}
