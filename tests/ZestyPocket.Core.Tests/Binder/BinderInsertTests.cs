using ZestyPocket.Core.Binder;

namespace ZestyPocket.Core.Tests.Binder;

/// <summary>Spine, cover and labels of tabs, measured from the binder.</summary>
public sealed class BinderInsertTests
{
    [Fact]
    public void A_spine_lies_on_its_side_and_everything_slides_in_by_a_sixteenth()
    {
        var inserts = BinderInserts.Of(Size.FromInches(1.5m, 11), Size.FromInches(8.5m, 11));
        inserts
            .Pieces(["Our year"], ["May", "June"])
            .ShouldBe([
                new(InsertKind.Spine, Size.FromInches(10.9375m, 1.4375m), "Our year"),
                new(InsertKind.Cover, Size.FromInches(8.4375m, 10.9375m), "Our year"),
                new(InsertKind.Tab, Size.FromInches(1.5m, 1), "May"),
                new(InsertKind.Tab, Size.FromInches(1.5m, 1), "June"),
            ]);
    }

    [Fact]
    public void A_binder_without_windows_has_its_tabs_alone_and_nonsense_is_refused()
    {
        BinderInserts.None.Pieces(["Our year"], []).ShouldBeEmpty();
        Should.Throw<RuleException>(() => BinderInserts.Of(Size.FromInches(0.1m, 11), null));
        Should.Throw<RuleException>(() => BinderInserts.Of(null, Size.FromInches(30, 11)));
    }
}
