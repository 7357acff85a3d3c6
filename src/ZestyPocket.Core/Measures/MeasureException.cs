namespace ZestyPocket.Core.Measures;

/// <summary>A text or number that is not a usable measure; the message says why, in words for the keeper.</summary>
public sealed class MeasureException(string message) : RuleException(message);
