using System.Text.Json.Nodes;
using CsCheck;
using ZestyPocket.Storage.Editing;

namespace ZestyPocket.Storage.Tests;

/// <summary>Where two documents differ: enough to tell whether two people changed different things.</summary>
public sealed class DocumentDiffTests
{
    private const string Week = """
        {"content":{"pieces":[{"id":"a","words":"one"},{"id":"b","words":"two"}],
         "placements":[{"place":{"leaf":"x","key":"L1"},"pieceId":"a"}],"clear":["L3"]},"ordinal":3}
        """;

    private static IReadOnlySet<string> Changed(Action<JsonNode> change)
    {
        var after = JsonNode.Parse(Week)!;
        change(after);
        return DocumentDiff.Between(Week, after.ToJsonString());
    }

    [Fact]
    public void Two_who_change_different_pieces_or_pockets_do_not_meet_and_two_at_the_same_do()
    {
        var words = Changed(w => w["content"]!["pieces"]![0]!["words"] = "other");
        var otherWords = Changed(w => w["content"]!["pieces"]![1]!["words"] = "other");
        var gone = Changed(w => w["content"]!["pieces"]!.AsArray().RemoveAt(0));
        var added = Changed(w =>
            w["content"]!["placements"]!
                .AsArray()
                .Add(JsonNode.Parse("""{"place":{"leaf":"x","key":"L2"},"pieceId":"b"}"""))
        );
        var taken = Changed(w => w["content"]!["placements"]!.AsArray().RemoveAt(0));
        DocumentDiff.Meet(words, otherWords).ShouldBeFalse();
        DocumentDiff.Meet(added, taken).ShouldBeFalse();
        DocumentDiff.Meet(words, added).ShouldBeFalse();
        DocumentDiff.Meet(words, words).ShouldBeTrue();
        // One deletes the piece on which the other writes.
        DocumentDiff.Meet(words, gone).ShouldBeTrue();
        DocumentDiff.Meet(gone, otherWords).ShouldBeFalse();
    }

    [Fact]
    public void A_list_in_another_order_or_of_bare_values_is_one_thing()
    {
        var turned = Changed(w =>
        {
            var pieces = w["content"]!["pieces"]!.AsArray();
            var first = pieces[0]!;
            pieces.RemoveAt(0);
            pieces.Add(first);
        });
        DocumentDiff.Meet(turned, Changed(w => w["content"]!["pieces"]![1]!["words"] = "other")).ShouldBeTrue();
        DocumentDiff
            .Meet(
                Changed(w => w["content"]!["clear"]!.AsArray().Add("L4")),
                Changed(w => w["content"]!["clear"]!.AsArray().Add("L5"))
            )
            .ShouldBeTrue();
    }

    private static readonly string[] Names = ["a", "id", "a\n", "place"];

    private static readonly Gen<JsonNode?> Documents = Gen.Recursive<JsonNode?>(
        (depth, inner) =>
            depth > 3
                ? Gen.Int[0, 3].Select(i => (JsonNode?)JsonValue.Create(i))
                : Gen.OneOf(
                    Gen.Int[0, 3].Select(i => (JsonNode?)JsonValue.Create(i)),
                    Gen.Const((JsonNode?)null),
                    Gen.Select(Gen.Int[0, 3].Select(i => Names[i]), inner)
                        .Array[0, 3]
                        .Select(p =>
                            (JsonNode?)
                                new JsonObject(
                                    p.DistinctBy(x => x.Item1)
                                        .Select(x => KeyValuePair.Create(x.Item1, x.Item2?.DeepClone()))
                                )
                        ),
                    inner.Array[0, 3].Select(e => (JsonNode?)new JsonArray([.. e.Select(n => n?.DeepClone())]))
                )
    );

    [Fact]
    public void Equal_documents_differ_nowhere_and_different_ones_somewhere_and_always_meet_themselves() =>
        Gen.Select(Documents, Documents)
            .Sample(
                (one, other) =>
                {
                    var (a, b) = (one?.ToJsonString() ?? "null", other?.ToJsonString() ?? "null");
                    DocumentDiff.Between(a, a).ShouldBeEmpty();
                    var changed = DocumentDiff.Between(a, b);
                    (changed.Count == 0).ShouldBe(JsonNode.DeepEquals(one, other), $"{a} {b}");
                    DocumentDiff.Meet(changed, changed).ShouldBe(changed.Count > 0);
                    DocumentDiff.Between(b, a).ShouldBe(changed, ignoreOrder: true);
                },
                iter: 2_000
            );
}
