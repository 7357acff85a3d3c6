using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Runtime.InteropServices;
using System.Text.Json;

namespace ZestyPocket.Drawing.Photos.Reading;

/// <summary>
/// Decodes files from outside in processes of their own, as many as there are cores, each with a bound on its memory
/// and on its time for each task. A file that breaks its reader, fills its memory or takes for ever costs that reader
/// and is refused; the server and everybody else at it go on. A reader stays for the next task, since its start costs
/// more than most of them, and goes when it has grown.
/// </summary>
public sealed class ReaderPool : IDisposable
{
    /// <summary>
    /// Most memory of a reader, in bytes, with what .NET takes for itself: the largest picture that is stored in passes
    /// fits (<see cref="PictureIntake.MostBytesInPasses"/>), all of the rest is decoded line by line.
    /// </summary>
    public const long MostMemory = 800L << 20;

    /// <summary>A reader that keeps more than this after a task makes room for another, in bytes.</summary>
    private const long MostKept = 192L << 20;

    /// <summary>For one task; the largest pictures take some seconds.</summary>
    public static TimeSpan LongestTime { get; } = TimeSpan.FromSeconds(90);

    private readonly ConcurrentBag<Reader> _idle = [];
    private readonly SemaphoreSlim _places = new(Environment.ProcessorCount);
    private readonly long _memory;

    public ReaderPool(long memory = MostMemory) => _memory = memory;

    /// <summary>The readers of this process, whoever asks: each costs memory.</summary>
    public static ReaderPool Shared { get; } = new();

    /// <summary>
    /// Does a task. Throws <see cref="PictureRefusedException"/> with what the reader says of the file, or that it
    /// could not cope with it, <see cref="PictureTakesLongException"/> after <paramref name="patience"/>, and
    /// <see cref="OperationCanceledException"/>; the reader is then gone.
    /// </summary>
    public T Do<T>(PictureTask<T> task, TimeSpan? patience = null, CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(task);
        _places.Wait(cancel);
        try
        {
            var reader = Idle() ?? Reader.Start(_memory);
            ReadingAnswer answer;
            try
            {
                answer = reader.Ask(task, patience ?? LongestTime, cancel);
            }
            catch
            {
                reader.Dispose();
                throw;
            }

            if (reader.Memory > MostKept)
            {
                reader.Dispose();
            }
            else
            {
                _idle.Add(reader);
            }

            return answer switch
            {
                { Result: { } result } => result.Deserialize<T>(PictureReading.Json)!,
                { TakesLong: true, Refused: { } slow } => throw new PictureTakesLongException(slow),
                { Refused: { } refused } => throw new PictureRefusedException(refused),
                _ => throw new InvalidOperationException($"A reader of pictures failed: {answer.Failed}"),
            };
        }
        finally
        {
            _places.Release();
        }
    }

    private Reader? Idle()
    {
        while (_idle.TryTake(out var reader))
        {
            if (reader.Lives)
            {
                return reader;
            }

            reader.Dispose();
        }

        return null;
    }

    public void Dispose()
    {
        while (_idle.TryTake(out var reader))
        {
            reader.Dispose();
        }

        _places.Dispose();
    }

    private sealed class Reader(Process process) : IDisposable
    {
        public bool Lives => !process.HasExited;

        /// <summary>What it holds now, in bytes.</summary>
        public long Memory
        {
            get
            {
                process.Refresh();
                return process.HasExited ? 0 : process.WorkingSet64;
            }
        }

        /// <summary>
        /// Starts one with the libraries of this program. What is bounded is the memory that it writes to: .NET sets
        /// far more addresses aside than it uses.
        /// </summary>
        public static Reader Start(long memory)
        {
            var program = Path.Combine(AppContext.BaseDirectory, "ZestyPocket.Reader.dll");
            var files = ((string)AppContext.GetData("APP_CONTEXT_DEPS_FILES")!).Split(';')[0];
            var runtime = RuntimeEnvironment.GetRuntimeDirectory();
            var start = new ProcessStartInfo(
                "prlimit",
                [
                    string.Create(CultureInfo.InvariantCulture, $"--data={memory}"),
                    "--core=0",
                    "--",
                    Path.GetFullPath(Path.Combine(runtime, "..", "..", "..", "dotnet")),
                    "exec",
                    "--depsfile",
                    files,
                    "--runtimeconfig",
                    Path.ChangeExtension(files, null)[..^".deps".Length] + ".runtimeconfig.json",
                    program,
                ]
            )
            {
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            };
            start.Environment["DOTNET_gcServer"] = "0";
            start.Environment["DOTNET_gcConcurrent"] = "0";
            start.Environment["DOTNET_GCHeapHardLimit"] = "0x10000000";
            start.Environment["DOTNET_TieredPGO"] = "0";
            start.Environment["MALLOC_ARENA_MAX"] = "2";
            var process = Process.Start(start) ?? throw new IOException("A reader of pictures did not start.");
            // What the libraries complain of says nothing that the answers do not, and must not fill the pipe.
            process.ErrorDataReceived += (_, _) => { };
            process.BeginErrorReadLine();
            return new Reader(process);
        }

        public ReadingAnswer Ask(PictureTask task, TimeSpan patience, CancellationToken cancel)
        {
            using var time = CancellationTokenSource.CreateLinkedTokenSource(cancel);
            time.CancelAfter(patience);
            // To end the process is the one way to end a wait for its pipe, and what a library does meanwhile.
            using var ending = time.Token.Register(Kill);
            try
            {
                process.StandardInput.WriteLine(JsonSerializer.Serialize(task, PictureReading.Json));
                process.StandardInput.Flush();
                if (process.StandardOutput.ReadLine() is { } line)
                {
                    return JsonSerializer.Deserialize<ReadingAnswer>(line, PictureReading.Json)!;
                }
            }
            catch (IOException)
            {
                // It went while it was asked: the same as when it goes before it answers.
            }

            cancel.ThrowIfCancellationRequested();
            if (time.IsCancellationRequested)
            {
                throw new PictureTakesLongException(patience);
            }

            throw new PictureRefusedException(PictureIntake.TooMuchMemory);
        }

        public void Dispose()
        {
            Kill();
            process.Dispose();
        }

        private void Kill()
        {
            try
            {
                process.Kill(entireProcessTree: true);
            }
            catch (InvalidOperationException)
            {
                // It is gone already.
            }
        }
    }
}
