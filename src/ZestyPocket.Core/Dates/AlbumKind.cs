namespace ZestyPocket.Core.Dates;

/// <summary>The kinds of dated album.</summary>
public enum AlbumKind
{
    /// <summary>One spread a week over a year.</summary>
    Weekly,

    /// <summary>Pages for each travel day.</summary>
    Trip,

    /// <summary>One day, hour by hour.</summary>
    DocumentedDay,

    /// <summary>Days numbered from 1.</summary>
    Countdown,
}

/// <summary>What kind of stretch of time a unit is.</summary>
public enum UnitKind
{
    Week,
    TravelDay,
    Hour,
    NumberedDay,
}

public static class AlbumKinds
{
    public static UnitKind UnitKind(this AlbumKind kind) =>
        kind switch
        {
            AlbumKind.Weekly => Dates.UnitKind.Week,
            AlbumKind.Trip => Dates.UnitKind.TravelDay,
            AlbumKind.DocumentedDay => Dates.UnitKind.Hour,
            _ => Dates.UnitKind.NumberedDay,
        };
}
