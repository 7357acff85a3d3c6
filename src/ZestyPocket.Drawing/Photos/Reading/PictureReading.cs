using System.Collections.Concurrent;
using System.Text.Json;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using ZestyPocket.Core;

namespace ZestyPocket.Drawing.Photos.Reading;

/// <summary>What a reader answers to one task: the result, or why there is none.</summary>
/// <param name="Refused">For the keeper.</param>
/// <param name="TakesLong">Whether more time may help.</param>
/// <param name="Failed">What broke, for the operator.</param>
internal sealed record ReadingAnswer(
    JsonElement? Result = null,
    string? Refused = null,
    bool TakesLong = false,
    string? Failed = null
);

/// <summary>The far side of <see cref="ReaderPool"/>: one task a line, one answer a line.</summary>
public static class PictureReading
{
    internal static JsonSerializerOptions Json { get; } =
        new JsonSerializerOptions(JsonSerializerDefaults.Web) { IgnoreReadOnlyProperties = true }.ConfigureForNodaTime(
            DateTimeZoneProviders.Tzdb
        );

    /// <summary>
    /// Does tasks until there are no more. When the other side goes, in the middle of one or not, the process ends:
    /// nobody waits for the answer.
    /// </summary>
    public static void Serve(Stream requests, Stream answers)
    {
        // Whatever a library writes must not stand between the answers.
        Console.SetOut(Console.Error);
        PhotoEngine.Start();
        using var waiting = new BlockingCollection<string>();
        var worker = new Thread(() =>
        {
            using var writer = new StreamWriter(answers) { AutoFlush = true };
            foreach (var line in waiting.GetConsumingEnumerable())
            {
                writer.WriteLine(JsonSerializer.Serialize(Answer(line), Json));
            }
        })
        {
            IsBackground = true,
        };
        worker.Start();
        using var reader = new StreamReader(requests);
        while (reader.ReadLine() is { } line)
        {
            waiting.Add(line);
        }
    }

    private static ReadingAnswer Answer(string line)
    {
        try
        {
            var task =
                JsonSerializer.Deserialize<PictureTask>(line, Json) ?? throw new JsonException("A task is missing.");
            return new ReadingAnswer(task.Do());
        }
        catch (PictureTakesLongException slow)
        {
            return new ReadingAnswer(Refused: slow.Message, TakesLong: true);
        }
        catch (Exception refused) when (refused is PictureRefusedException or RuleException)
        {
            return new ReadingAnswer(Refused: refused.Message);
        }
        catch (Exception broken)
        {
            // It is the server that decides what a failure means; a reader only tells it.
            return new ReadingAnswer(Failed: broken.ToString());
        }
    }
}
