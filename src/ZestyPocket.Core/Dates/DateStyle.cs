namespace ZestyPocket.Core.Dates;

/// <summary>Whether the day or the month is written first.</summary>
public enum DateOrder
{
    /// <summary><c>20 February 2026</c>.</summary>
    DayMonth,

    /// <summary><c>February 20, 2026</c>.</summary>
    MonthDay,
}

/// <summary>How hours are written.</summary>
public enum HourClock
{
    /// <summary><c>07:00</c>, <c>19:00</c>.</summary>
    TwentyFour,

    /// <summary><c>7 a.m.</c>, <c>7 p.m.</c></summary>
    Twelve,
}

/// <summary>How an album writes dates and hours.</summary>
public readonly record struct DateStyle(DateOrder Order, HourClock Clock)
{
    public static DateStyle Default => new(DateOrder.DayMonth, HourClock.TwentyFour);
}
