using CsCheck;
using NodaTime;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

public sealed class AlphaSheetTests
{
    [Fact]
    public void Missing_letters_are_named_and_counted()
    {
        var sheet = AlphaSheet.Read("A3 B2 E4 L2 N1 O2 S1 T2", reusable: false);
        sheet.Try("a noble seal").CanBeSpelt.ShouldBeTrue();
        sheet.Try("Tennessee").Missing.ShouldBe([("N", 1), ("S", 1)]);
        sheet.Try("No, no").Missing.ShouldBe([("N", 1), (",", 1)]);
    }

    [Fact]
    public void A_sign_that_is_missing_gets_a_stand_in_or_is_left_away()
    {
        var sheet = AlphaSheet.Read("J1 U2 N1 I3 E1 S2 D1 A1 Y1 ,2", reusable: false);
        sheet.WithStandIns("Junie's day")!.Title.ShouldBe("JUNIE,S DAY");
        AlphaSheet.Read("S2 U1 N1", reusable: false).WithStandIns("Sun's!")!.Title.ShouldBe("SUNS");
        AlphaSheet.Read("S1 U1 N1", reusable: false).WithStandIns("Sunset").ShouldBeNull();
    }

    [Fact]
    public void Stickers_are_used_up_and_stamps_are_not()
    {
        AlphaSheet.Read("O2 T1", reusable: false).After("OTO").Try("TO").Missing.ShouldBe([("T", 1), ("O", 1)]);
        AlphaSheet.Read("O T", reusable: true).After("OTTO").Try("OTTO").CanBeSpelt.ShouldBeTrue();
        Should.Throw<RuleException>(() => AlphaSheet.Read("O2", reusable: false).After("OTTO"));
        Should.Throw<RuleException>(() => AlphaSheet.Read("  ", reusable: false));
    }

    [Fact]
    public void What_was_spelt_is_what_is_gone()
    {
        Gen.Select(Gen.Int[1, 9].Array[26], Gen.String[Gen.Char["ABCDEFG "], 0, 12])
            .Sample(
                (counts, title) =>
                {
                    var sheet = AlphaSheet.Read(
                        string.Join(' ', counts.Select((c, i) => $"{(char)('A' + i)}{c}")),
                        reusable: false
                    );
                    if (sheet.Try(title).CanBeSpelt)
                    {
                        sheet.After(title).Counts.Values.Sum().ShouldBe(counts.Sum() - title.Count(c => c != ' '));
                    }
                    else
                    {
                        sheet
                            .Try(title)
                            .Missing.Sum(m => m.Short)
                            .ShouldBe(
                                title
                                    .Where(c => c != ' ')
                                    .GroupBy(c => c)
                                    .Sum(g => Math.Max(0, g.Count() - counts[g.Key - 'A']))
                            );
                    }
                }
            );
    }

    [Fact]
    public void A_sheet_is_written_down_as_it_is_read()
    {
        Gen.Int[0, 30]
            .Array[26]
            .Where(c => c.Sum() > 0)
            .Sample(counts =>
            {
                var text = string.Join(
                    ' ',
                    counts.Select((c, i) => (c, i)).Where(p => p.c > 0).Select(p => $"{(char)('A' + p.i)}{p.c}")
                );
                AlphaSheet.Read(text, reusable: false).ToString().ShouldBe(text);
            });
    }

    [Fact]
    public void Letters_used_are_counted_down_over_the_album()
    {
        var sheet = new OwnedSheet(
            Guid.NewGuid(),
            "Cork",
            AlphaSheet.Read("A2 D1 E2 M1 Y2", reusable: false),
            [
                new(Guid.NewGuid(), "May", new LocalDate(2026, 5, 1)),
                new(Guid.NewGuid(), "Dye", new LocalDate(2026, 5, 2)),
            ]
        );
        sheet.Left().ToString().ShouldBe("A1 E1");
        Should.Throw<RuleException>(() =>
            (
                AlbumWords.Usual with
                {
                    Sheets =
                    [
                        sheet with
                        {
                            Spelt = sheet.Spelt.Add(new(Guid.NewGuid(), "Yes", new LocalDate(2026, 5, 3))),
                        },
                    ],
                }
            ).Checked()
        );
    }

    [Fact]
    public void Other_titles_come_from_the_dates_and_places_of_the_part()
    {
        var day = new LocalDate(2026, 6, 6);
        var calendar = new AlbumCalendar
        {
            Kind = AlbumKind.Trip,
            FirstDay = day,
            Stays = [new Stay("Marrowick", "Europe/London", day.AtMidnight(), null)],
        };
        TitleIdeas
            .Of(UnitDates.Of(calendar.Travel.Take(1)[0]), calendar)
            .ShouldBe(["Marrowick", "Day 1", "6 June 2026", "June 2026", "June", "Jun", "1", "Saturday"]);
    }
}
