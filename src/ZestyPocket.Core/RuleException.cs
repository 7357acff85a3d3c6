namespace ZestyPocket.Core;

/// <summary>
/// Something the keeper asked for that a rule of the trade forbids. The message is written for the keeper:
/// what happened and what to do. Nothing has been changed when it is thrown.
/// </summary>
public class RuleException(string message) : Exception(message);
