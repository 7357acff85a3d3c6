using System.Text.Json;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Printing;

namespace ZestyPocket.Core.Tests.Printing;

/// <summary>
/// Against somebody else's packer: the npm package guillotine-packer 1.0, which tries all its own strategies.
/// </summary>
public sealed class OtherPackerTests
{
    private sealed record Instance(int Width, int Height, int[][] Items);

    [Trait("Duration", "Long")]
    [Fact]
    public async Task Never_more_sheets_than_another_guillotine_packer_on_random_instances()
    {
        var instances = Instances();
        var theirs = await TheirsAsync(instances);
        theirs.Length.ShouldBe(instances.Count);
        var better = 0;
        for (var i = 0; i < instances.Count; i++)
        {
            var (sheet, items) = (instances[i], instances[i].Items);
            var pieces = items
                .Select((s, n) => new SheetPiece(n, new Size(Sixteenths(s[0]), Sixteenths(s[1])), true))
                .ToList();
            var ours = SheetPacking
                .Pack(pieces, new Size(Sixteenths(sheet.Width), Sixteenths(sheet.Height)), Length.Zero, 1)
                .Count;
            ours.ShouldBeLessThanOrEqualTo(theirs[i], $"instance {i}");
            better += ours < theirs[i] ? 1 : 0;
        }

        TestContext.Current.SendDiagnosticMessage(
            "Fewer sheets than the other packer in {0} of {1} instances.",
            better,
            instances.Count
        );
    }

    /// <summary>
    /// Half are pocket sizes as people print them, half are anything. Sixteenths of an inch on a Letter sheet.
    /// </summary>
    private static List<Instance> Instances()
    {
        var dice = new Random(20260504);
        int[][] pockets =
        [
            [48, 64],
            [64, 48],
            [96, 64],
            [64, 96],
            [32, 32],
            [48, 48],
            [64, 64],
            [32, 48],
            [96, 128],
            [48, 128],
        ];
        return
        [
            .. Enumerable
                .Range(0, Thorough.Of(200, 60))
                .Select(i => new Instance(
                    128,
                    160,
                    [
                        .. Enumerable
                            .Range(0, dice.Next(4, 30))
                            .Select(_ =>
                                i % 2 == 0
                                    ? pockets[dice.Next(pockets.Length)]
                                    : [dice.Next(16, 100), dice.Next(16, 120)]
                            ),
                    ]
                )),
        ];
    }

    private static async Task<int[]> TheirsAsync(List<Instance> instances)
    {
        var output = await Node.RunAsync(
            "ZestyPocket.Core.Tests/Printing/guillotine-packer.mjs",
            JsonSerializer.Serialize(instances, JsonSerializerOptions.Web)
        );
        return JsonSerializer.Deserialize<int[]>(output)!;
    }

    private static Length Sixteenths(int n) => Length.FromInches(n, 16);
}
