using NodaTime;
using ZestyPocket.Storage.Sharing;

namespace ZestyPocket.Server.Words;

/// <summary>Somebody who is asked for words.</summary>
/// <param name="SendTo">A mail address for a letter with the link; null or empty to send none.</param>
public sealed record AskedPerson(string Name, string? SendTo = null);

/// <summary>Asks people for words about a day, for a card, or about anything: each gets a link of their own.</summary>
/// <param name="Prompt">What is asked, as they read it.</param>
/// <param name="Day">The day it is about; null for none.</param>
/// <param name="UnitId">The week or day of the card; null for none.</param>
/// <param name="PieceId">The card the words are for; null for none.</param>
/// <param name="MostPhotos">How many pictures each may add.</param>
/// <param name="Days">How long the links hold.</param>
/// <param name="Site">What stands before the link in a letter, such as <c>https://albums.example.org</c>.</param>
public sealed record AskForWords(
    IReadOnlyList<AskedPerson> People,
    string Prompt,
    LocalDate? Day,
    Guid? UnitId,
    Guid? PieceId,
    int MostPhotos,
    int Days,
    string? Site = null
);

/// <summary>The link of one person.</summary>
/// <param name="Path">To be opened on this server; its secret is shown this once.</param>
public sealed record ContributorLinkView(Guid Id, string Person, string Path, Instant ExpiresAt);

/// <summary>What one person answered.</summary>
/// <param name="Words">Null until they are sent.</param>
/// <param name="Holds">Whether the link can still be used.</param>
public sealed record AnswerView(
    Guid Id,
    string Person,
    string? Words,
    Instant? SentAt,
    ContributionState State,
    int Photos,
    bool Holds,
    Instant ExpiresAt
);

/// <summary>What was asked, with the answers side by side.</summary>
/// <param name="Day">In words; null when it is about none.</param>
public sealed record AskedView(
    Guid Id,
    string Prompt,
    string? Day,
    bool ForACard,
    Instant MadeAt,
    IReadOnlyList<AnswerView> Answers
);

/// <summary>What becomes of an answer.</summary>
public sealed record AnswerDecision(ContributionState State);

/// <summary>What a contributor sees: what is asked, and their own words.</summary>
/// <param name="From">Who asks.</param>
/// <param name="Words">What they sent; empty before.</param>
/// <param name="Taken">Somebody took the words over: they cannot be changed any more.</param>
public sealed record ContributionView(
    string Person,
    string From,
    string Prompt,
    string? Day,
    string Words,
    bool Sent,
    bool Taken,
    int Photos,
    int MostPhotos,
    int LongestWords,
    Instant ExpiresAt
);

/// <summary>The words of a contributor.</summary>
public sealed record ContributedWords(string Words);
