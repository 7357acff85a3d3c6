namespace ZestyPocket.Core.Photos;

/// <summary>Where a photo's recorded time comes from.</summary>
public enum TimeSource
{
    /// <summary>Nothing tells it.</summary>
    None,

    /// <summary>The file's own metadata.</summary>
    File,

    /// <summary>Date and time in the file's name.</summary>
    Name,

    /// <summary>Only a date in the file's name; the recorded time is noon of it and is not shown.</summary>
    NameDay,
}
