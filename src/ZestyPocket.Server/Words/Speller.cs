using System.Collections.Concurrent;
using System.Diagnostics;
using System.Text;
using System.Text.RegularExpressions;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Words;

namespace ZestyPocket.Server.Words;

/// <summary>
/// Spelling by Debian's hunspell, a process of its own for each language that is kept and asked word by word. When it
/// is not there or does not answer, words are simply not checked, and that is told.
/// </summary>
public sealed partial class Speller(ILogger<Speller> log) : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);

    private readonly SemaphoreSlim _turn = new(1);
    private readonly Dictionary<string, Process> _running = [];
    private readonly ConcurrentDictionary<(string Language, string Word), string?[]> _answers = new();

    /// <summary>The dictionary that goes with an album's way of writing dates.</summary>
    public static string LanguageOf(DateStyle style) => style.Order == DateOrder.MonthDay ? "en_US" : "en_GB";

    /// <summary>
    /// The misspelt words of a text, each with the dictionary's first suggestion; null when there is no dictionary.
    /// Names that the album knows are right.
    /// </summary>
    public async Task<IReadOnlyList<WordFinding>?> CheckAsync(
        string language,
        string text,
        IReadOnlyCollection<string> known,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(known);
        var right = known
            .SelectMany(k => k.Split(' ', StringSplitOptions.RemoveEmptyEntries))
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        var found = new List<WordFinding>();
        foreach (Match match in Word().Matches(text))
        {
            var word = PlainWords.Composed(match.Value).Replace('’', '\'').TrimEnd('\'');
            var bare = word.EndsWith("'s", StringComparison.Ordinal) ? word[..^2] : word;
            if (bare.Length < 2 || right.Contains(bare) || !WordChecks.IsLatin(bare))
            {
                continue;
            }

            if (await AskAsync(language, word, cancel) is not { } answer)
            {
                return null;
            }

            if (answer.Length > 0)
            {
                var printed = match.Value.TrimEnd('’', '\'');
                found.Add(
                    new WordFinding(
                        WordFindingKind.Spelling,
                        match.Index,
                        printed.Length,
                        printed,
                        answer[0] is null ? "Not in the dictionary." : $"Not in the dictionary; perhaps {answer[0]}.",
                        answer[0]
                    )
                );
            }
        }

        return found;
    }

    public void Dispose()
    {
        foreach (var process in _running.Values)
        {
            process.Kill();
            process.Dispose();
        }

        _turn.Dispose();
    }

    /// <summary>
    /// Empty when the word is right, else its first suggestion or null; no array at all when nobody answers.
    /// </summary>
    private async Task<string?[]?> AskAsync(string language, string word, CancellationToken cancel)
    {
        if (_answers.TryGetValue((language, word), out var known))
        {
            return known;
        }

        await _turn.WaitAsync(cancel);
        try
        {
            // A request that goes away must not break off the exchange: the answer left behind would be taken for that
            // of the next word. One word takes a moment; only the process's own silence ends it.
            using var limit = new CancellationTokenSource(Patience);
            if (!_running.TryGetValue(language, out var process) || process.HasExited)
            {
                process = Process.Start(
                    new ProcessStartInfo("hunspell", ["-a", "-i", "UTF-8", "-d", language])
                    {
                        RedirectStandardInput = true,
                        RedirectStandardOutput = true,
                        StandardInputEncoding = new UTF8Encoding(false),
                        StandardOutputEncoding = Encoding.UTF8,
                    }
                )!;
                _running[language] = process;
                if (await process.StandardOutput.ReadLineAsync(limit.Token) is null)
                {
                    return null;
                }
            }

            await process.StandardInput.WriteLineAsync($"^{word}".AsMemory(), limit.Token);
            await process.StandardInput.FlushAsync(limit.Token);
            string?[] answer = [];
            while (await process.StandardOutput.ReadLineAsync(limit.Token) is { Length: > 0 } line)
            {
                answer = line[0] switch
                {
                    '&' => [line[(line.IndexOf(": ", StringComparison.Ordinal) + 2)..].Split(", ")[0]],
                    '#' => [null],
                    _ => answer,
                };
            }

            if (_answers.Count > 50_000)
            {
                _answers.Clear();
            }

            return _answers[(language, word)] = answer;
        }
        catch (Exception away)
        {
            // However an exchange broke off, the process may still hold an answer: it is never asked again.
            LogAway(away.Message);
            if (_running.Remove(language, out var stuck))
            {
                stuck.Kill();
                stuck.Dispose();
            }

            if (away is System.ComponentModel.Win32Exception or IOException or OperationCanceledException)
            {
                return null;
            }

            throw;
        }
        finally
        {
            _turn.Release();
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "Spelling cannot be checked just now: {Reason}")]
    private partial void LogAway(string reason);

    [GeneratedRegex(@"\p{L}[\p{L}\p{M}'’]*")]
    private static partial Regex Word();
}
