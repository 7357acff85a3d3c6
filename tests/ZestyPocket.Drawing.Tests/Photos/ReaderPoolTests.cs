using System.Diagnostics;
using NetVips;
using ZestyPocket.Core.Photos;
using ZestyPocket.Drawing.Photos;
using ZestyPocket.Drawing.Photos.Reading;

namespace ZestyPocket.Drawing.Tests.Photos;

/// <summary>Files from outside are decoded by processes that may fail, and by nobody else.</summary>
public sealed class ReaderPoolTests : IDisposable
{
    private readonly TestPictures _pictures = new();

    public void Dispose() => _pictures.Dispose();

    [Fact]
    public void What_a_reader_says_of_a_picture_is_what_is_so()
    {
        var path = _pictures.Jpeg("garden.jpg", 640, 480, ("orientation", "6"));
        var said = ReaderPool.Shared.Do(new LookAtPicture(path, PictureFormat.Jpeg, path, 1));
        var (thumbnail, judgement) = PictureIntake.Judge(path);
        said.Facts.ShouldBe(PictureIntake.Inspect(path));
        said.Facts.Pixels.ShouldBe(new PixelSize(480, 640));
        said.Thumbnail.ShouldBe(thumbnail);
        said.Judgement.ShouldBe(judgement with { Palette = said.Judgement.Palette });
        said.Judgement.Palette.ShouldBe(judgement.Palette);
        ReaderPool.Shared.Do(new MakeThumbnail(path, 200, [])).ShouldBe(PictureIntake.Thumbnail(path, 200));
    }

    [Fact]
    public void A_refusal_comes_back_in_the_readers_words()
    {
        var path = Path.Combine(_pictures.Folder, "words.jpg");
        File.WriteAllText(path, "no picture at all");
        Should
            .Throw<PictureRefusedException>(() =>
                ReaderPool.Shared.Do(new LookAtPicture(path, PictureFormat.Jpeg, path, 1))
            )
            .Message.ShouldContain("damaged or not what its name says");
    }

    /// <summary>
    /// 35 million pixels of 8 bytes in passes take 280 MB while they are decoded: more than this reader may have, and
    /// less than the ones of the program have.
    /// </summary>
    [Fact]
    public void A_picture_that_fills_its_readers_memory_is_refused_and_the_next_one_is_read()
    {
        using var small = new ReaderPool(360L << 20);
        var large = Path.Combine(_pictures.Folder, "large.png");
        using (var black = Image.Black(7_000, 5_000, bands: 4))
        {
            using var colour = (black + 90)
                .Cast(Enums.BandFormat.Ushort)
                .Copy(interpretation: Enums.Interpretation.Rgb16);
            colour.Pngsave(large, interlace: true, compression: 1);
        }

        Should
            .Throw<PictureRefusedException>(() => small.Do(new LookAtPicture(large, PictureFormat.Png, large, 1)))
            .Message.ShouldContain("more memory than a picture may take");
        var path = _pictures.Jpeg("after.jpg", 640, 480);
        small.Do(new LookAtPicture(path, PictureFormat.Jpeg, path, 1)).Facts.Pixels.ShouldBe(new PixelSize(640, 480));
        ReaderPool
            .Shared.Do(new LookAtPicture(large, PictureFormat.Png, large, 1))
            .Facts.Pixels.ShouldBe(new PixelSize(7_000, 5_000));
    }

    [Fact]
    public void A_task_that_takes_too_long_or_is_cancelled_ends_with_its_process()
    {
        using var pool = new ReaderPool();
        var path = _pictures.Jpeg("slow.jpg", 640, 480);
        var task = new LookAtPicture(path, PictureFormat.Jpeg, path, 1);
        var others = Readers();
        pool.Do(task);
        var first = Readers().Except(others).ShouldHaveSingleItem();
        // A pipe that nobody writes into: whoever reads it waits for ever.
        var never = Path.Combine(_pictures.Folder, "never.png");
        Process.Start("mkfifo", never).WaitForExit();
        var waits = new LookAtPicture(never, PictureFormat.Png, never, 1);
        Should.Throw<PictureTakesLongException>(() => pool.Do(waits, TimeSpan.FromMilliseconds(300)));
        using var cancelled = new CancellationTokenSource(TimeSpan.FromMilliseconds(300));
        Should.Throw<OperationCanceledException>(() => pool.Do(waits, cancel: cancelled.Token));
        Readers().Except(others).ShouldBeEmpty($"{first} and whoever came after it are gone");
        pool.Do(task).Facts.Pixels.ShouldBe(new PixelSize(640, 480));
    }

    private static List<int> Readers() =>
        [
            .. Directory
                .GetDirectories("/proc")
                .Select(d => int.TryParse(Path.GetFileName(d), out var id) ? id : 0)
                .Where(id => id > 0 && CommandOf(id).Contains("ZestyPocket.Reader", StringComparison.Ordinal)),
        ];

    private static string CommandOf(int id)
    {
        try
        {
            return File.ReadAllText($"/proc/{id}/cmdline");
        }
        catch (IOException)
        {
            // Gone meanwhile.
            return string.Empty;
        }
    }
}
