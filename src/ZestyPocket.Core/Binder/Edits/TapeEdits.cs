using System.Collections.Immutable;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Pages;
using ZestyPocket.Core.Placing;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Binder.Edits;

/// <summary>Merges a unit with the one after it. Two pages are enough for days in which little happened.</summary>
public sealed record MergeUnit : TapeEdit
{
    public override string Label() => "Merge";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var before = desk.Binder;
        var at = before.Units.IndexOf(before.Require(UnitId));
        if (at + 1 >= before.Units.Length)
        {
            throw new RuleException("Nothing comes after this one that it could be merged with. Nothing was changed.");
        }

        var (unit, next) = (before.Units[at], before.Units[at + 1]);
        var merged = unit with { Dates = unit.Dates.MergedWith(next.Dates), Content = unit.Content.With(next.Content) };
        var faces = before.Faces();
        var carried = faces[unit.Id].AddRange(faces[next.Id]);
        var binder = before.With(merged) with { Units = before.Units.SetItem(at, merged).RemoveAt(at + 1) };
        if (before.FacesPerUnit == 2 && carried.Length > 2)
        {
            // One spread is enough: the leaf between the two goes.
            binder = binder.RemoveLeaf(before.School == PageSchool.Spread ? carried[1].LeafId : carried[^1].LeafId);
        }

        binder = binder.Lay(
            faces.SetItem(unit.Id, carried),
            u => u.Id == unit.Id && before.FacesPerUnit == 1 ? carried.Length : faces[u.Id].Length,
            tools.NewId
        );
        var toTray =
            BinderChanges.Placed(unit) + BinderChanges.Placed(next) - BinderChanges.Placed(binder.Require(unit.Id));
        return new AlbumEdited(
            desk with
            {
                Binder = binder,
            },
            $"Merged {desk.TitleOf(unit)} and {desk.TitleOf(next)}{TapeWords.WentToTheTray(toTray)}",
            unit.Id
        )
        {
            AlsoIn = [unit.Id, next.Id],
        };
    }
}

/// <summary>
/// Splits a merged unit again. Notes go where their days are; pieces stay where they were put, cards with the first.
/// </summary>
public sealed record SplitUnit : TapeEdit
{
    public override string Label() => "Split";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var before = desk.Binder;
        var unit = before.Require(UnitId);
        var (at, dates) = (before.Units.IndexOf(unit), unit.Dates);
        var parts = desk.Calendar.Parts(dates);
        if (parts.Length < 2)
        {
            throw new RuleException(
                $"{desk.TitleOf(unit)} is a single one already: there is nothing to split. Nothing was changed."
            );
        }

        var faces = before.Faces();
        var (binder, content) = (before, unit.Content);
        var made = ImmutableArray.CreateBuilder<Guid>();
        foreach (var part in parts.Skip(1))
        {
            var notes = content.Notes.Where(n => part.Holds(new AlbumMoment(n.Day, 0, null))).ToImmutableArray();
            content = content with { Notes = [.. content.Notes.Except(notes)] };
            made.Add(tools.NewId());
            binder = binder.Insert(
                at + made.Count,
                new BoundUnit(made[^1], part, UnitContent.Empty with { Notes = notes })
            );
            if (before.FacesPerUnit == 2)
            {
                // Its pages end on a front; the new leaf goes before that one, so that what follows stays.
                binder = binder.InsertLeafBefore(faces[unit.Id][^1].LeafId, tools.NewId());
            }
        }

        binder = binder
            .With(unit with { Dates = parts[0] with { Name = dates.Name, LeftOut = dates.LeftOut }, Content = content })
            .Lay(
                faces,
                u => u.Id == unit.Id || made.Contains(u.Id) ? before.FacesPerUnit : faces[u.Id].Length,
                tools.NewId
            );
        var toTray = BinderChanges.Placed(unit) - BinderChanges.Placed(binder.Require(unit.Id));
        return new AlbumEdited(
            desk with
            {
                Binder = binder,
            },
            $"Split {desk.TitleOf(unit)}{TapeWords.WentToTheTray(toTray)}",
            unit.Id
        )
        {
            AlsoIn = [unit.Id, .. made],
        };
    }
}

/// <summary>Leaves a unit out on purpose, or takes it back. It keeps its number and what it holds.</summary>
public sealed record LeaveUnitOut(bool LeftOut) : TapeEdit
{
    public override string Label() => "Leave out";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        var unit = desk.Binder.Require(UnitId);
        var title = desk.TitleOf(unit);
        return new AlbumEdited(
            desk with
            {
                Binder = desk.Binder.With(unit with { Dates = unit.Dates with { LeftOut = LeftOut } }),
            },
            LeftOut ? $"Left {title} out on purpose" : $"Included {title} again",
            unit.Id
        );
    }
}

/// <summary>Gives a unit the keeper's own name; an empty one brings the computed name back.</summary>
public sealed record RenameUnit(string Name) : TapeEdit
{
    public override string Label() => "Rename";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        if (Name.Length > UnitDates.LongestName)
        {
            throw new RuleException($"A name has {UnitDates.LongestName} characters at most. Nothing was changed.");
        }

        var unit = desk.Binder.Require(UnitId);
        var named = unit with
        {
            Dates = unit.Dates with { Name = string.IsNullOrWhiteSpace(Name) ? null : PlainWords.Name(Name) },
        };
        return new AlbumEdited(
            desk with
            {
                Binder = desk.Binder.With(named),
            },
            $"Named it {desk.TitleOf(named)}",
            unit.Id
        );
    }
}

/// <summary>Adds weeks, days or hours at the end or at the start, as many as there are.</summary>
public sealed record GrowAlbum(int Count, bool AtEnd) : WholeAlbumEdit
{
    public override string Label() => "Add to the album";

    public override AlbumEdited Apply(AlbumDesk desk, AlbumTools tools)
    {
        ArgumentNullException.ThrowIfNull(desk);
        ArgumentNullException.ThrowIfNull(tools);
        var before = desk.Binder;
        if (Count < 1 || Count > RingBinder.MostUnits - before.Units.Length)
        {
            throw new RuleException(
                $"An album can have 1 to {RingBinder.MostUnits} weeks, days or hours. Nothing was changed."
            );
        }

        var (binder, made) = (before, new List<BoundUnit>());
        while (made.Count < Count && desk.Calendar.Beyond([.. binder.Units.Select(u => u.Dates)], AtEnd) is { } beyond)
        {
            if (!AtEnd && before.FacesPerUnit == 2 && !binder.Leaves.IsEmpty)
            {
                binder = binder.InsertLeafAfter(binder.Leaves[0].Id, tools.NewId());
            }

            made.Add(new BoundUnit(tools.NewId(), beyond, UnitContent.Empty));
            binder = binder.Insert(AtEnd ? binder.Units.Length : 0, made[^1]);
        }

        if (made.Count == 0)
        {
            throw new RuleException(
                AtEnd
                    ? "There are no more hours in that day. Nothing was changed."
                    : "Nothing comes before number 1. Nothing was changed."
            );
        }

        var faces = before.Faces();
        binder = binder.Lay(
            faces,
            u => faces.TryGetValue(u.Id, out var own) ? own.Length : before.FacesPerUnit,
            tools.NewId
        );
        var (first, last) = AtEnd ? (made[0], made[^1]) : (made[^1], made[0]);
        var done =
            made.Count == 1 ? $"Made {desk.TitleOf(first)}" : $"Made {desk.TitleOf(first)} to {desk.TitleOf(last)}";
        var after = desk with { Binder = binder };
        return new AlbumEdited(after, done) { AlsoIn = EveryUnit(after) };
    }
}

internal static class TapeWords
{
    /// <summary>Such as <c>; 3 pieces went to the tray</c>; nothing for none.</summary>
    public static string WentToTheTray(int pieces) =>
        pieces > 0 ? $"; {pieces} {(pieces == 1 ? "piece" : "pieces")} went to the tray" : string.Empty;
}
