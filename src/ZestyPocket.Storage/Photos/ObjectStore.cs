using System.Net;
using Amazon.Runtime;
using Amazon.S3;
using Amazon.S3.Model;

namespace ZestyPocket.Storage.Photos;

/// <summary>Where an object store is; section <c>Zesty:ObjectStore</c> of the configuration.</summary>
public sealed class ObjectStoreSettings
{
    /// <summary>Such as <c>https://objects.example.org</c>; null when originals lie in a folder.</summary>
    public string? ServiceUrl { get; set; }

    public string Bucket { get; set; } = "zesty-pocket";

    public string Region { get; set; } = "us-east-1";

    public string AccessKey { get; set; } = string.Empty;

    public string SecretKey { get; set; } = string.Empty;

    /// <summary>Most of what is kept of originals on this machine, in millions of bytes.</summary>
    public int LocalMegabytes { get; set; } = 20_000;
}

/// <summary>
/// An object store that speaks the S3 protocol. No address of an object is given to anybody: pictures go through the
/// server, which asks who may see them.
/// </summary>
public sealed class ObjectStore(ObjectStoreSettings settings) : IDisposable
{
    private readonly AmazonS3Client _client = new(
        new BasicAWSCredentials(settings.AccessKey, settings.SecretKey),
        new AmazonS3Config
        {
            ServiceURL = settings.ServiceUrl,
            AuthenticationRegion = settings.Region,
            ForcePathStyle = true,
            // Stores other than the first of its kind know no later checksums.
            RequestChecksumCalculation = RequestChecksumCalculation.WHEN_REQUIRED,
            ResponseChecksumValidation = ResponseChecksumValidation.WHEN_REQUIRED,
            MaxErrorRetry = 4,
            Timeout = TimeSpan.FromMinutes(5),
        }
    );

    /// <summary>Makes the bucket when it is not there.</summary>
    public async Task EnsureAsync(CancellationToken cancel)
    {
        try
        {
            await _client.PutBucketAsync(new PutBucketRequest { BucketName = settings.Bucket }, cancel);
        }
        catch (AmazonS3Exception there) when (there.StatusCode == HttpStatusCode.Conflict)
        {
            // It is there.
        }
    }

    public async Task PutAsync(string key, string path, CancellationToken cancel) =>
        await _client.PutObjectAsync(
            new PutObjectRequest
            {
                BucketName = settings.Bucket,
                Key = key,
                FilePath = path,
                UseChunkEncoding = false,
            },
            cancel
        );

    /// <summary>
    /// Writes an object to a file that appears whole or not at all; false when there is no such object.
    /// </summary>
    public async Task<bool> GetAsync(string key, string path, CancellationToken cancel)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        var arriving = $"{path}.{Guid.NewGuid():N}";
        try
        {
            using var got = await _client.GetObjectAsync(
                new GetObjectRequest { BucketName = settings.Bucket, Key = key },
                cancel
            );
            await using (var file = File.Create(arriving))
            {
                await got.ResponseStream.CopyToAsync(file, cancel);
            }

            File.Move(arriving, path, overwrite: true);
            return true;
        }
        catch (AmazonS3Exception none) when (none.StatusCode == HttpStatusCode.NotFound)
        {
            return false;
        }
        finally
        {
            File.Delete(arriving);
        }
    }

    public Task DeleteAsync(string key, CancellationToken cancel) =>
        _client.DeleteObjectAsync(new DeleteObjectRequest { BucketName = settings.Bucket, Key = key }, cancel);

    /// <summary>The keys that begin so, with the time and the size of each.</summary>
    public async Task<IReadOnlyList<(string Key, DateTime AtUtc, long Bytes)>> ListAsync(
        string prefix,
        CancellationToken cancel
    )
    {
        var found = new List<(string, DateTime, long)>();
        var asked = new ListObjectsV2Request { BucketName = settings.Bucket, Prefix = prefix };
        ListObjectsV2Response page;
        do
        {
            page = await _client.ListObjectsV2Async(asked, cancel);
            found.AddRange(
                (page.S3Objects ?? []).Select(o =>
                    (o.Key, (o.LastModified ?? DateTime.UtcNow).ToUniversalTime(), o.Size ?? 0)
                )
            );
            asked.ContinuationToken = page.NextContinuationToken;
        } while (page.IsTruncated == true);

        return found;
    }

    public void Dispose() => _client.Dispose();
}
