using CsCheck;
using ZestyPocket.Core.Photos;

namespace ZestyPocket.Core.Tests.Photos;

/// <summary>Which frames of a video become pictures, and when they were.</summary>
public sealed class VideoFramesTests
{
    [Fact]
    public void Proposed_frames_differ_from_each_other_and_come_in_the_order_of_time() =>
        Gen.Select(Gen.Double[0, 100], Gen.ULong)
            .Array[0, 40]
            .Sample(looked =>
            {
                var frames = looked.Select((f, i) => new VideoFrame(i * 250, f.Item1, f.Item2)).ToList();
                var proposed = VideoFrames.Propose(frames, 8);
                proposed.Count.ShouldBeLessThanOrEqualTo(8);
                (proposed.Count > 0).ShouldBe(frames.Count > 0);
                proposed.Select(f => f.Milliseconds).ShouldBeInOrder();
                foreach (var (a, b) in proposed.SelectMany((a, i) => proposed.Skip(i + 1).Select(b => (a, b))))
                {
                    System
                        .Numerics.BitOperations.PopCount(a.Likeness ^ b.Likeness)
                        .ShouldBeGreaterThanOrEqualTo(VideoFrames.LeastDifferenceBits);
                }

                // The sharpest of all is always among them.
                if (frames.Count > 0)
                {
                    proposed.Max(f => f.Sharpness).ShouldBe(frames.Max(f => f.Sharpness));
                }
            });

    [Fact]
    public void A_shot_that_stands_still_is_one_picture()
    {
        var frames = Enumerable.Range(0, 24).Select(i => new VideoFrame(i * 500, 10 + (i % 3), 0xF0F0)).ToList();
        VideoFrames.Propose(frames, 8).ShouldHaveSingleItem().Sharpness.ShouldBe(12);
    }

    [Theory]
    [InlineData("2026-05-04T08:12:30.000000Z", null, null, null, "2026-05-04T08:12:30Z")]
    // The telephone's own time with its offset is preferred.
    [InlineData("2026-05-04T08:12:30Z", "2026-05-04T10:12:30+0200", "2026-05-04T10:12:30", 120, "2026-05-04T08:12:30Z")]
    [InlineData(null, "2026-05-04T10:12:30+02:00", "2026-05-04T10:12:30", 120, "2026-05-04T08:12:30Z")]
    // Zero of the format's own epoch and of others says nothing.
    [InlineData("1904-01-01T00:00:00.000000Z", null, null, null, null)]
    [InlineData("1970-01-01T00:00:00Z", null, null, null, null)]
    [InlineData(
        "1904-01-01T00:00:00Z",
        "2026-05-04T10:12:30-0730",
        "2026-05-04T10:12:30",
        -450,
        "2026-05-04T17:42:30Z"
    )]
    // A recorder's own time without a zone.
    [InlineData("2026-05-04 10:12:30", null, "2026-05-04T10:12:30", null, null)]
    [InlineData("yesterday", null, null, null, null)]
    [InlineData("", "", null, null, null)]
    public void A_video_begins_when_its_file_says(
        string? creation,
        string? own,
        string? local,
        int? offset,
        string? instant
    )
    {
        var start = VideoFrames.StartOf(creation, own);
        start.Local?.ToString("uuuu'-'MM'-'dd'T'HH':'mm':'ss", null).ShouldBe(local);
        (start.Local is null).ShouldBe(local is null);
        start.OffsetMinutes.ShouldBe(offset);
        start.Instant.ShouldBe(instant is null ? null : NodaTime.Text.InstantPattern.General.Parse(instant).Value);
    }

    [Fact]
    public void A_frame_is_called_after_its_video_and_its_position() =>
        VideoFrames.NameOf("harbour walk.MOV", 72_400).ShouldBe("harbour walk 1m12.4s.jpg");
}
