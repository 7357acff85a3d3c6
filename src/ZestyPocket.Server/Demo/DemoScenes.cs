using SkiaSharp;

namespace ZestyPocket.Server.Demo;

/// <summary>What a demo snapshot shows.</summary>
public enum Scene
{
    Hills,
    Harbour,
    TeaTable,
    Window,
    Flowers,
    Street,
    Market,
    Picnic,
    Cat,
    Lantern,
    Canal,
    Bridge,
    Woods,
    Desk,
    Kite,
    Baking,
    Portrait,
    Cheek,
    Knitting,
    Breakfast,
    Umbrellas,
    Puddle,
    Allotment,
    Bicycle,
    Swimming,
    Bonfire,
    TrainWindow,
    Library,
    Workshop,
    Piano,
    WashingLine,
    Heron,
    Ducks,
    Sheep,
    Sink,
    Stairs,
    Drawing,
    Soup,
    Boots,
    LockGates,
    Rope,
    Square,
    Fog,
    WetNight,
    Cake,
    Letter,
    Map,
    Mushrooms,
    AppleTree,
    Silhouettes,
}

/// <summary>
/// Paints made-up snapshots with light, depth and grain. The same seed gives the same picture. Scenes are painted on a
/// field 1.0 high; x runs from 0 to the picture's proportion.
/// </summary>
public sealed partial class DemoScenes(int seed, Scene scene, double hour, bool handheld = true)
{
    private readonly Random _dice = new(seed);
    private SKCanvas _canvas = null!;
    private float _width;
    private SKMaskFilter? _soft;
    private SKColor? _shadow;

    /// <summary>
    /// How much smaller than the picture it is painted: small lenses are soft, and large fields are slow.
    /// </summary>
    public const double Smaller = 2.25;

    /// <summary>Paints the picture at a fraction of its size, for a picture of the given proportion.</summary>
    public SKBitmap Paint(int width, int height)
    {
        var bitmap = new SKBitmap(new SKImageInfo(width, height, SKColorType.Rgba8888, SKAlphaType.Opaque));
        using var canvas = new SKCanvas(bitmap);
        _canvas = canvas;
        _width = (float)width / height;
        _canvas.Scale(height);
        if (handheld)
        {
            Stand();
        }

        Draw();
        _canvas.ResetMatrix();
        if (handheld)
        {
            Air(canvas, width, height);
        }

        using var vignette = new SKPaint
        {
            Shader = SKShader.CreateRadialGradient(
                new SKPoint(width / 2f, height / 2f),
                Math.Max(width, height) * 0.75f,
                [SKColors.Transparent, new SKColor(20, 10, 0, 90)],
                [0.55f, 1f],
                SKShaderTileMode.Clamp
            ),
        };
        canvas.DrawRect(0, 0, width, height, vignette);
        return bitmap;
    }

    private bool Evening => hour >= 18.5;

    /// <summary>Nobody holds a camera straight, or stands at the same distance twice.</summary>
    private void Stand()
    {
        var stand = new Random(seed * 31);
        var near = 1.03f + (0.22f * stand.NextSingle());
        var (x, y) = (_width * (0.35f + (0.3f * stand.NextSingle())), 0.4f + (0.2f * stand.NextSingle()));
        _canvas.RotateDegrees((stand.NextSingle() - 0.5f) * 2.4f, x, y);
        _canvas.Scale(near, near, x, y);
    }

    /// <summary>The light of the day: warm, cool, dull or bright, all over the picture.</summary>
    private void Air(SKCanvas canvas, int width, int height)
    {
        var light = new Random(seed * 17);
        var (warm, bright) = (light.NextSingle(), light.NextSingle());
        using var cast = new SKPaint
        {
            Color = warm > 0.5f ? new SKColor(255, 196, 120) : new SKColor(120, 160, 210),
            BlendMode = SKBlendMode.SoftLight,
        };
        cast.Color = cast.Color.WithAlpha((byte)(90 * Math.Abs(warm - 0.5f)));
        canvas.DrawRect(0, 0, width, height, cast);
        using var exposure = new SKPaint
        {
            Color = (bright > 0.5f ? SKColors.White : SKColors.Black).WithAlpha((byte)(70 * Math.Abs(bright - 0.5f))),
            BlendMode = SKBlendMode.Overlay,
        };
        canvas.DrawRect(0, 0, width, height, exposure);
    }

    private void Draw()
    {
        Action paint = scene switch
        {
            Scene.Hills => Hills,
            Scene.Harbour => Harbour,
            Scene.TeaTable => TeaTable,
            Scene.Window => Window,
            Scene.Flowers => Flowers,
            Scene.Street => Street,
            Scene.Market => Market,
            Scene.Picnic => Picnic,
            Scene.Cat => Cat,
            Scene.Lantern => Lantern,
            Scene.Canal => Canal,
            Scene.Bridge => Bridge,
            Scene.Woods => Woods,
            Scene.Desk => Desk,
            Scene.Kite => Kite,
            Scene.Baking => Baking,
            Scene.Portrait => Portrait,
            Scene.Cheek => Cheek,
            Scene.Knitting => Knitting,
            Scene.Breakfast => Breakfast,
            Scene.Umbrellas => Umbrellas,
            Scene.Puddle => Puddle,
            Scene.Allotment => Allotment,
            Scene.Bicycle => Bicycle,
            Scene.Swimming => Swimming,
            Scene.Bonfire => Bonfire,
            Scene.TrainWindow => TrainWindow,
            Scene.Library => Library,
            Scene.Workshop => Workshop,
            Scene.Piano => Piano,
            Scene.WashingLine => WashingLine,
            Scene.Heron => Heron,
            Scene.Ducks => Ducks,
            Scene.Sheep => Sheep,
            Scene.Sink => Sink,
            Scene.Stairs => Stairs,
            Scene.Drawing => DrawingOnTheFloor,
            Scene.Soup => Soup,
            Scene.Boots => Boots,
            Scene.LockGates => LockGates,
            Scene.Rope => Rope,
            Scene.Square => Square,
            Scene.Fog => Fog,
            Scene.WetNight => WetNight,
            Scene.Cake => Cake,
            Scene.Letter => Letter,
            Scene.Map => Map,
            Scene.Mushrooms => Mushrooms,
            Scene.AppleTree => AppleTree,
            Scene.Silhouettes => Silhouettes,
            _ => throw new NotSupportedException($"Nobody paints {scene}."),
        };
        paint();
    }

    private void Hills()
    {
        Sky();
        Sun(0.24f);
        for (var layer = 0; layer < 5; layer++)
        {
            var depth = layer / 4f;
            Ridge(
                0.42f + (0.13f * layer),
                0.10f,
                Mix(Evening ? Hex(0xE0A98A) : Hex(0xA9C4CF), Evening ? Hex(0x3A3550) : Hex(0x3F6B45), depth)
            );
        }

        for (var i = 0; i < 5; i++)
        {
            Tree(At(0.05f, _width), 0.93f, Between(0.08f, 0.16f), Mix(Hex(0x2F5238), Hex(0x5F7F3C), Chance()));
        }
    }

    private void Harbour()
    {
        Sky();
        Sun(0.2f);
        Ridge(0.46f, 0.05f, Evening ? Hex(0x7A6478) : Hex(0x7C9AA3));
        Water(0.5f, 1f);
        for (var i = 0; i < 3; i++)
        {
            var (x, y, s) = (At(0.12f, _width - 0.12f), 0.58f + (0.12f * i), 0.10f + (0.05f * i));
            var hull = Pick(0xB4472F, 0x2F5D74, 0xE8E2D2, 0x3F6B45);
            Box(x - (s * 0.01f), y - (s * 1.9f), s * 0.04f, s * 1.9f, Hex(0x5B4630));
            Poly(
                Pick(0xF6EFE0, 0xE9D9B5, 0xD9826A),
                (x + (s * 0.05f), y - (s * 1.8f)),
                (x + (s * 0.75f), y - (s * 0.25f)),
                (x + (s * 0.05f), y - (s * 0.2f))
            );
            Poly(
                hull,
                (x - s, y - (s * 0.12f)),
                (x + s, y - (s * 0.12f)),
                (x + (s * 0.7f), y + (s * 0.25f)),
                (x - (s * 0.75f), y + (s * 0.25f))
            );
            Blurred(
                0.012f,
                () =>
                    Poly(
                        hull.WithAlpha(90),
                        (x - (s * 0.75f), y + (s * 0.25f)),
                        (x + (s * 0.7f), y + (s * 0.25f)),
                        (x + (s * 0.5f), y + (s * 0.7f)),
                        (x - (s * 0.5f), y + (s * 0.7f))
                    )
            );
        }
    }

    private void TeaTable()
    {
        Wood(Hex(0x9A6B42), Hex(0x6E4729));
        LightPatch();
        var (cx, cy) = (_width * Between(0.38f, 0.62f), Between(0.42f, 0.58f));
        Plate(cx, cy, 0.27f);
        Shadowed(() => Circle(cx, cy, 0.2f, Pick(0xC98B4B, 0xD9A35E, 0xB9713A)));
        for (var i = 0; i < 14; i++)
        {
            var (a, r) = (i * 0.449f * 2, 0.13f);
            Circle(cx + (MathF.Cos(a) * r), cy + (MathF.Sin(a) * r), 0.026f, Pick(0x7B1F36, 0x9C2A3F, 0x43214B));
        }

        for (var i = 0; i < 3; i++)
        {
            var (x, y) = (At(0.1f, _width - 0.1f), i % 2 == 0 ? Between(0.08f, 0.2f) : Between(0.8f, 0.95f));
            Plate(x, y, 0.12f);
            Shadowed(() => Circle(x, y, 0.075f, Hex(0xF4F0E6)));
            Circle(x, y, 0.06f, Pick(0x6B3E1D, 0x8A5A2B));
        }
    }

    private void Window()
    {
        Gradient(0, 1, Hex(0x6A5D52), Hex(0x4A4038));
        var (l, t, w, h) = (_width * 0.16f, 0.06f, _width * 0.68f, 0.72f);
        _canvas.Save();
        _canvas.ClipRect(new SKRect(l, t, l + w, t + h));
        Blurred(
            0.02f,
            () =>
            {
                Sky();
                Ridge(0.45f, 0.08f, Hex(0x6F8F7A));
                Ridge(0.6f, 0.06f, Hex(0x4F7350));
            }
        );
        for (var i = 0; i < 90; i++)
        {
            Circle(l + (Chance() * w), t + (Chance() * h), Between(0.002f, 0.006f), new SKColor(255, 255, 255, 110));
        }

        _canvas.Restore();
        foreach (
            var (x, y, bw, bh) in new[]
            {
                (l - 0.02f, t - 0.02f, w + 0.04f, 0.03f),
                (l - 0.02f, t, 0.025f, h),
                (l + w - 0.005f, t, 0.025f, h),
                (l + (w / 2), t, 0.018f, h),
                (l - 0.05f, t + h, w + 0.1f, 0.05f),
            }
        )
        {
            Box(x, y, bw, bh, Hex(0xEFE6D6));
        }

        for (var i = 0; i < 3; i++)
        {
            Plant(l + (w * (0.15f + (0.33f * i))), t + h, Between(0.1f, 0.17f));
        }
    }

    private void Flowers()
    {
        Gradient(0, 1, Hex(0x6F8F55), Hex(0x2E4A2B));
        Blurred(
            0.03f,
            () =>
            {
                for (var i = 0; i < 26; i++)
                {
                    Circle(
                        At(0, _width),
                        Chance() * 0.7f,
                        Between(0.03f, 0.08f),
                        Pick(0xD5E0A0, 0xE8C25E, 0xC8607E, 0xF2E6D0).WithAlpha(150)
                    );
                }
            }
        );
        for (var i = 0; i < 8; i++)
        {
            var (x, y, s) = (At(0.05f, _width - 0.05f), Between(0.32f, 0.85f), Between(0.05f, 0.1f));
            Line(x, y, x + Between(-0.05f, 0.05f), 1.02f, 0.009f, Hex(0x3E6B34));
            var petal = Pick(0xE2577A, 0xF3B63C, 0xF7F0E2, 0xB968B0, 0xE76F3C);
            for (var p = 0; p < 9; p++)
            {
                var a = p * MathF.Tau / 9;
                Oval(
                    x + (MathF.Cos(a) * s * 0.62f),
                    y + (MathF.Sin(a) * s * 0.62f),
                    s * 0.42f,
                    s * 0.22f,
                    a,
                    Mix(petal, SKColors.White, Chance() * 0.25f)
                );
            }

            Circle(x, y, s * 0.3f, Hex(0xA9661E));
        }
    }

    private void Street()
    {
        Sky();
        var x = -0.05f;
        while (x < _width)
        {
            var (w, h) = (Between(0.16f, 0.26f), Between(0.38f, 0.58f));
            var wall = Mix(
                Pick(0xD8A77C, 0xC9C0A8, 0xB9766A, 0x9FB0A8, 0xE3CFA0),
                Hex(0x2B2A3A),
                Evening ? 0.45f : 0.05f
            );
            Box(x, 0.8f - h, w, h, wall);
            Poly(
                Mix(Hex(0x7A4034), Hex(0x23222F), Evening ? 0.5f : 0),
                (x - 0.01f, 0.8f - h),
                (x + (w / 2), 0.8f - h - 0.12f),
                (x + w + 0.01f, 0.8f - h)
            );
            for (var r = 0; r < 3; r++)
            {
                for (var c = 0; c < 2; c++)
                {
                    var lit = Evening && Chance() < 0.65f;
                    var window = lit ? Hex(0xFFD98A) : Hex(0x56697A);
                    var (wx, wy) = (x + (w * (0.18f + (0.42f * c))), 0.8f - h + 0.05f + (0.13f * r));
                    if (lit)
                    {
                        Blurred(
                            0.02f,
                            () => Box(wx - 0.01f, wy - 0.01f, (w * 0.2f) + 0.02f, 0.1f, new SKColor(255, 200, 110, 110))
                        );
                    }

                    Box(wx, wy, w * 0.22f, 0.08f, window);
                }
            }

            x += w;
        }

        Gradient(0.8f, 1, Evening ? Hex(0x4A4657) : Hex(0xA39B90), Evening ? Hex(0x2A2833) : Hex(0x7D756B));
        for (var i = 0; i < 3; i++)
        {
            Figure(At(0.1f, _width - 0.1f), 0.93f, Between(0.1f, 0.14f));
        }
    }

    private void Market()
    {
        Gradient(0, 1, Hex(0xB9A88C), Hex(0x6E5E4A));
        for (var i = 0; i < 14; i++)
        {
            Poly(
                i % 2 == 0 ? Hex(0xC8452F) : Hex(0xF4EAD6),
                (_width * i / 14f, 0),
                (_width * (i + 1) / 14f, 0),
                (_width * (i + 1) / 14f, 0.2f),
                (_width * (i + 0.5f) / 14f, 0.235f),
                (_width * i / 14f, 0.2f)
            );
        }

        for (var row = 0; row < 3; row++)
        {
            for (var col = 0; col < 4; col++)
            {
                var (x, y, w, h) = (_width * ((col * 0.25f) + 0.01f), 0.34f + (row * 0.22f), _width * 0.23f, 0.19f);
                Box(x, y, w, h, Hex(0x7C5836));
                var fruit = Pick(0xE4701E, 0xD8392B, 0x8FB13A, 0xF2C230, 0x6A2E5A, 0xC9D26A);
                for (var i = 0; i < 26; i++)
                {
                    var (fx, fy) = (x + 0.02f + (Chance() * (w - 0.04f)), y + 0.02f + (Chance() * (h - 0.04f)));
                    Circle(fx, fy, 0.024f, Mix(fruit, Hex(0x2B1A10), Chance() * 0.35f));
                    Circle(fx - 0.007f, fy - 0.008f, 0.006f, new SKColor(255, 255, 255, 120));
                }
            }
        }
    }

    private void Picnic()
    {
        Sky();
        Ridge(0.4f, 0.06f, Hex(0x7FA06A));
        Gradient(0.45f, 1, Hex(0x86A655), Hex(0x4F7036));
        Tree(_width * Between(0.7f, 0.9f), 0.6f, 0.42f, Hex(0x3F6B38));
        var (bx, by) = (_width * 0.18f, 0.68f);
        Poly(Hex(0xB63A3A), (bx, by), (bx + 0.6f, by - 0.02f), (bx + 0.72f, by + 0.24f), (bx - 0.1f, by + 0.26f));
        for (var i = 0; i < 6; i++)
        {
            Line(bx + (0.1f * i), by, bx - 0.1f + (0.137f * i), by + 0.26f, 0.02f, new SKColor(255, 245, 230, 150));
        }

        for (var i = 0; i < 3; i++)
        {
            Figure(bx + 0.1f + (0.2f * i), by + 0.12f, Between(0.12f, 0.16f));
        }
    }

    private void Cat()
    {
        Gradient(0, 0.62f, Hex(0xC9B79C), Hex(0x9C876B));
        Gradient(0.62f, 1, Pick(0x51707A, 0x7A5160, 0x6B7A51), Hex(0x2E3F45));
        LightPatch();
        var fur = Pick(0xC77B3B, 0x56504C, 0xD9CBB5);
        var (x, y) = (_width * Between(0.4f, 0.6f), 0.66f);
        Shadowed(() => Oval(x, y, 0.27f, 0.15f, 0, fur));
        Shadowed(() => Circle(x - 0.2f, y - 0.12f, 0.105f, fur));
        Poly(fur, (x - 0.29f, y - 0.17f), (x - 0.275f, y - 0.28f), (x - 0.2f, y - 0.215f));
        Poly(fur, (x - 0.11f, y - 0.17f), (x - 0.12f, y - 0.28f), (x - 0.2f, y - 0.215f));
        for (var i = 0; i < 6; i++)
        {
            Oval(x - 0.05f + (0.05f * i), y - 0.1f, 0.012f, 0.05f, 0.2f, Mix(fur, SKColors.Black, 0.35f));
        }

        Oval(x - 0.235f, y - 0.13f, 0.016f, 0.006f, 0, Hex(0x222018));
        Oval(x - 0.165f, y - 0.13f, 0.016f, 0.006f, 0, Hex(0x222018));
        Circle(x - 0.2f, y - 0.1f, 0.009f, Hex(0xC77A7A));
        Oval(x + 0.24f, y + 0.07f, 0.16f, 0.03f, -0.4f, Mix(fur, SKColors.Black, 0.15f));
    }

    private void Lantern()
    {
        Gradient(0, 0.75f, Hex(0x10142B), Hex(0x31345C));
        for (var i = 0; i < 130; i++)
        {
            Circle(
                At(0, _width),
                Chance() * 0.65f,
                Between(0.001f, 0.003f),
                new SKColor(255, 255, 240, (byte)_dice.Next(90, 230))
            );
        }

        Ridge(0.7f, 0.07f, Hex(0x171B26));
        Gradient(0.78f, 1, Hex(0x1B1A16), Hex(0x0D0C0A));
        var (x, y) = (_width * Between(0.35f, 0.65f), 0.8f);
        Blurred(0.09f, () => Circle(x, y - 0.05f, 0.2f, new SKColor(255, 150, 50, 190)));
        for (var i = 0; i < 8; i++)
        {
            Blurred(
                0.006f,
                () =>
                    Oval(
                        x + Between(-0.06f, 0.06f),
                        y - Between(0.02f, 0.12f),
                        0.024f,
                        0.07f,
                        0,
                        Pick(0xFFD25A, 0xFF9A33, 0xFFF0B0).WithAlpha(210)
                    )
            );
        }

        for (var i = -1; i <= 1; i += 2)
        {
            Figure(x + (i * Between(0.22f, 0.32f)), 0.9f, 0.19f);
        }
    }

    private void Canal()
    {
        Sky();
        Ridge(0.42f, 0.06f, Hex(0x6D8C62));
        for (var i = 0; i < 7; i++)
        {
            Tree(At(0, _width), 0.5f, Between(0.14f, 0.26f), Mix(Hex(0x3B6138), Hex(0x7C9A4A), Chance()));
        }

        Water(0.5f, 1f);
        Poly(Hex(0x7F9450), (0, 0.5f), (_width * 0.32f, 0.5f), (0, 0.95f));
        var (x, y) = (_width * Between(0.3f, 0.5f), 0.68f);
        var hull = Pick(0x1F4E46, 0x7A2430, 0x243A63);
        Shadowed(() => Poly(hull, (x - 0.3f, y), (x + 0.45f, y), (x + 0.4f, y + 0.1f), (x - 0.25f, y + 0.1f)));
        Box(x - 0.18f, y - 0.09f, 0.5f, 0.09f, Hex(0xB63F2C));
        for (var i = 0; i < 5; i++)
        {
            Box(x - 0.15f + (0.095f * i), y - 0.07f, 0.055f, 0.04f, Hex(0xF3E2A8));
        }

        Figure(x + 0.36f, y, 0.13f);
        Blurred(
            0.015f,
            () =>
                Poly(
                    hull.WithAlpha(110),
                    (x - 0.25f, y + 0.1f),
                    (x + 0.4f, y + 0.1f),
                    (x + 0.33f, y + 0.25f),
                    (x - 0.2f, y + 0.25f)
                )
        );
    }

    private void Bridge()
    {
        Sky();
        Ridge(0.5f, 0.07f, Hex(0x5F7F58));
        Water(0.6f, 1f);
        var stone = Evening ? Hex(0x7D6A63) : Hex(0xA89B86);
        Box(0, 0.36f, _width, 0.08f, stone);
        for (var arch = 0; arch < 3; arch++)
        {
            var cx = _width * ((arch + 0.5f) / 3);
            var r = _width / 7.2f;
            using var builder = new SKPathBuilder { FillType = SKPathFillType.EvenOdd };
            builder.AddRect(new SKRect(_width * arch / 3, 0.43f, _width * (arch + 1) / 3, 0.72f));
            builder.AddOval(new SKRect(cx - r, 0.74f - (r * 0.95f), cx + r, 0.74f + r));
            using var path = builder.Detach();
            using var paint = new SKPaint { Color = Mix(stone, SKColors.Black, 0.12f), IsAntialias = true };
            _canvas.DrawPath(path, paint);
        }

        for (var i = 0; i < 60; i++)
        {
            Box(
                At(0, _width),
                0.37f + (Chance() * 0.1f),
                0.05f,
                0.012f,
                Mix(stone, Pick(0x3B332B, 0xE6DCC8), 0.25f).WithAlpha(120)
            );
        }

        Water(0.72f, 1f);
    }

    private void Woods()
    {
        Gradient(0, 1, Hex(0xC9D3A0), Hex(0x3C4A26));
        for (var layer = 0; layer < 3; layer++)
        {
            for (var i = 0; i < 9 - (2 * layer); i++)
            {
                var (x, w) = (At(0, _width), 0.012f + (0.018f * layer));
                Box(x, 0, w, 0.75f + (0.1f * layer), Mix(Hex(0x9AA37C), Hex(0x33281C), 0.3f + (0.33f * layer)));
            }
        }

        Poly(Hex(0xA08C62), (_width * 0.42f, 0.62f), (_width * 0.52f, 0.62f), (_width * 0.8f, 1), (_width * 0.2f, 1));
        for (var i = 0; i < 5; i++)
        {
            var x = At(0.1f, _width);
            Blurred(
                0.02f,
                () => Poly(new SKColor(255, 250, 200, 60), (x, 0), (x + 0.08f, 0), (x - 0.2f, 1), (x - 0.38f, 1))
            );
        }

        Leaves(0.14f);
        Figure(_width * 0.48f, 0.78f, 0.14f);
    }

    private void Desk()
    {
        Gradient(0, 0.7f, Hex(0x4D4A55), Hex(0x6B5B55));
        for (var shelf = 0; shelf < 2; shelf++)
        {
            var (x, y) = (0.04f, 0.06f + (0.3f * shelf));
            while (x < _width * 0.62f)
            {
                var (w, h) = (Between(0.02f, 0.045f), Between(0.17f, 0.24f));
                Box(x, y + 0.25f - h, w, h, Pick(0x8B3A2E, 0x2F5568, 0xC9A44C, 0x55694A, 0xD9CBB2, 0x5A3F5E));
                x += w + 0.004f;
            }

            Box(0.02f, y + 0.25f, _width * 0.64f, 0.018f, Hex(0x7A5332));
        }

        Wood(Hex(0x8A5E3A), Hex(0x5F3E24), 0.72f);
        var lx = _width * 0.8f;
        Blurred(0.1f, () => Circle(lx, 0.55f, 0.24f, new SKColor(255, 214, 130, 150)));
        Line(lx + 0.05f, 0.8f, lx + 0.02f, 0.45f, 0.014f, Hex(0x2D2A28));
        Poly(Hex(0xC8452F), (lx - 0.09f, 0.5f), (lx + 0.09f, 0.5f), (lx + 0.05f, 0.36f), (lx - 0.04f, 0.36f));
        Shadowed(() =>
            Poly(
                Hex(0xF7F0DF),
                (_width * 0.3f, 0.82f),
                (_width * 0.6f, 0.8f),
                (_width * 0.64f, 0.95f),
                (_width * 0.27f, 0.97f)
            )
        );
        for (var i = 0; i < 5; i++)
        {
            Line(_width * 0.32f, 0.845f + (0.02f * i), _width * 0.58f, 0.83f + (0.02f * i), 0.004f, Hex(0x8A93A0));
        }
    }

    private void Kite()
    {
        Sky();
        for (var i = 0; i < 4; i++)
        {
            Blurred(
                0.03f,
                () => Oval(At(0, _width), Between(0.1f, 0.4f), 0.16f, 0.045f, 0, new SKColor(255, 255, 255, 190))
            );
        }

        Ridge(0.72f, 0.05f, Hex(0x7C9A52));
        Gradient(0.8f, 1, Hex(0x8AA653), Hex(0x5C7A38));
        var (x, y, fx) = (_width * Between(0.55f, 0.8f), Between(0.14f, 0.3f), _width * Between(0.2f, 0.4f));
        Line(x, y, fx, 0.78f, 0.003f, Hex(0x5B5B5B));
        Poly(Pick(0xD8392B, 0xF2B230, 0x3B7EA1), (x, y - 0.11f), (x + 0.08f, y), (x, y + 0.13f), (x - 0.08f, y));
        Line(x, y - 0.11f, x, y + 0.13f, 0.004f, Hex(0xFFF4DC));
        Figure(fx, 0.9f, 0.13f);
        Figure(fx + 0.12f, 0.92f, 0.09f);
    }

    private void Baking()
    {
        Gradient(0, 1, Hex(0xDCD3C4), Hex(0xB5A892));
        LightPatch();
        Shadowed(() => Box(_width * 0.08f, 0.16f, _width * 0.84f, 0.7f, Hex(0x6C6F73)));
        for (var row = 0; row < 3; row++)
        {
            for (var col = 0; col < 4; col++)
            {
                var (x, y) = (_width * (0.2f + (0.2f * col)), 0.29f + (0.22f * row));
                var crust = Mix(Hex(0xC98B4B), Hex(0x8A5426), Chance());
                var lean = Chance();
                Shadowed(() => Oval(x, y, 0.085f, 0.075f, lean, crust));
                Oval(x - 0.02f, y - 0.02f, 0.04f, 0.028f, 0.5f, Mix(crust, SKColors.White, 0.3f).WithAlpha(150));
                for (var i = 0; i < 6; i++)
                {
                    Circle(x + Between(-0.05f, 0.05f), y + Between(-0.045f, 0.045f), 0.007f, Hex(0x4B2A17));
                }
            }
        }
    }

    // ---- the painter's hand ------------------------------------------------------------------------------

    private void Sky()
    {
        var (top, low) = hour switch
        {
            < 8 => (Hex(0x7C9CC0), Hex(0xF2CDA8)),
            >= 20.5 => (Hex(0x232A52), Hex(0xC46A5A)),
            >= 18.5 => (Hex(0x5D6F9E), Hex(0xF3B27C)),
            _ => (Hex(0x6FA3CF), Hex(0xDCE8EA)),
        };
        Gradient(0, 1, top, low);
    }

    private void Sun(float y)
    {
        var x = _width * Between(0.2f, 0.8f);
        Blurred(0.08f, () => Circle(x, y, 0.12f, new SKColor(255, 235, 190, 170)));
        Circle(x, y, 0.045f, new SKColor(255, 248, 225));
    }

    private void Water(float top, float bottom)
    {
        Gradient(top, bottom, Evening ? Hex(0xC98F78) : Hex(0x8FB4C2), Evening ? Hex(0x3B3F5E) : Hex(0x2F5D74));
        for (var i = 0; i < 70; i++)
        {
            var y = top + (Chance() * (bottom - top));
            var length = 0.03f + ((y - top) * 0.3f);
            Line(At(0, _width), y, At(0, _width), y, 0.002f, SKColors.Transparent);
            var x = At(-0.1f, _width);
            Line(x, y, x + length, y, 0.003f, new SKColor(255, 255, 255, (byte)_dice.Next(20, 80)));
        }
    }

    private void Ridge(float level, float rough, SKColor colour)
    {
        using var builder = new SKPathBuilder();
        builder.MoveTo(0, 1);
        var (a, b, c) = (Chance() * 6, Chance() * 6, Chance() * 6);
        for (var x = 0f; x <= _width + 0.02f; x += 0.02f)
        {
            var y =
                level
                + (
                    rough
                    * (
                        (0.5f * MathF.Sin((x * 3) + a))
                        + (0.3f * MathF.Sin((x * 7.3f) + b))
                        + (0.12f * MathF.Sin((x * 19) + c))
                    )
                );
            builder.LineTo(x, y);
        }

        builder.LineTo(_width + 0.02f, 1);
        builder.Close();
        using var path = builder.Detach();
        using var paint = new SKPaint
        {
            IsAntialias = true,
            Shader = SKShader.CreateLinearGradient(
                new SKPoint(0, level - rough),
                new SKPoint(0, level + 0.3f),
                [colour, Mix(colour, SKColors.Black, 0.25f)],
                SKShaderTileMode.Clamp
            ),
        };
        _canvas.DrawPath(path, paint);
    }

    private void Tree(float x, float ground, float size, SKColor leaf)
    {
        Box(x - (size * 0.05f), ground - (size * 0.5f), size * 0.1f, size * 0.5f, Hex(0x4B3826));
        for (var i = 0; i < 16; i++)
        {
            var (dx, dy) = (Between(-0.4f, 0.4f) * size, Between(-1.05f, -0.4f) * size);
            Circle(
                x + dx,
                ground + dy,
                size * Between(0.14f, 0.24f),
                Mix(leaf, dy < -0.75f * size ? Hex(0xD5DE9A) : Hex(0x1F3320), Chance() * 0.35f)
            );
        }
    }

    private void Leaves(float until)
    {
        for (var i = 0; i < 120; i++)
        {
            Circle(
                At(0, _width),
                Chance() * until * 2,
                Between(0.012f, 0.035f),
                Pick(0x6C8A3A, 0x93A94E, 0x4A6A30, 0xB8C46A).WithAlpha(200)
            );
        }
    }

    private void Plant(float x, float y, float size)
    {
        Poly(
            Pick(0xB4623C, 0x8C9AA0, 0xE0D2B8),
            (x - (size * 0.32f), y - (size * 0.55f)),
            (x + (size * 0.32f), y - (size * 0.55f)),
            (x + (size * 0.24f), y),
            (x - (size * 0.24f), y)
        );
        for (var i = 0; i < 12; i++)
        {
            var a = -MathF.PI / 2 + Between(-1.1f, 1.1f);
            Oval(
                x + (MathF.Cos(a) * size * 0.5f),
                y - (size * 0.55f) + (MathF.Sin(a) * size * 0.6f),
                size * 0.4f,
                size * 0.08f,
                a,
                Pick(0x3F6B34, 0x5E8A40, 0x7EA552)
            );
        }
    }

    private void Figure(float x, float foot, float size)
    {
        var coat = Pick(0xC8452F, 0x2F5D74, 0xE0B23C, 0x4F6B4A, 0x8A5A7A);
        if (hour >= 20.5 || scene == Scene.Lantern)
        {
            coat = Mix(coat, Hex(0x141218), 0.55f);
        }

        Blurred(0.008f, () => Oval(x + (size * 0.15f), foot, size * 0.32f, size * 0.06f, 0, new SKColor(0, 0, 0, 90)));
        Box(x - (size * 0.11f), foot - (size * 0.42f), size * 0.09f, size * 0.42f, Hex(0x34343F));
        Box(x + (size * 0.02f), foot - (size * 0.42f), size * 0.09f, size * 0.42f, Hex(0x34343F));
        Oval(x, foot - (size * 0.6f), size * 0.17f, size * 0.28f, 0, coat);
        Circle(x, foot - (size * 0.95f), size * 0.12f, Pick(0xE2B48F, 0xB98560, 0x8A5C3E));
        Oval(x, foot - (size * 1.01f), size * 0.13f, size * 0.08f, 0, Pick(0x3A2A1E, 0x7A5632, 0x1F1B1A, 0xD9C27A));
    }

    private void Plate(float x, float y, float r)
    {
        Shadowed(() => Circle(x, y, r, Hex(0xF2EEE4)));
        Circle(x, y, r * 0.8f, Hex(0xE6E0D2));
    }

    private void Wood(SKColor a, SKColor b, float top = 0)
    {
        Gradient(top, 1, a, b);
        for (var i = 0; i < 40; i++)
        {
            var y = top + (Chance() * (1 - top));
            Line(
                0,
                y,
                _width,
                y + Between(-0.01f, 0.01f),
                Between(0.001f, 0.004f),
                Mix(a, SKColors.Black, 0.4f).WithAlpha(70)
            );
        }
    }

    private void LightPatch()
    {
        var x = At(0, _width * 0.6f);
        Blurred(
            0.03f,
            () => Poly(new SKColor(255, 244, 210, 75), (x, 0), (x + 0.5f, 0), (x + 0.85f, 1), (x + 0.2f, 1))
        );
    }

    /// <summary>Draws the shapes twice: first as their own soft shadow, then as they are.</summary>
    private void Shadowed(Action draw)
    {
        _shadow = new SKColor(20, 10, 0, 110);
        _canvas.Save();
        _canvas.Translate(0.012f, 0.018f);
        Blurred(0.012f, draw);
        _canvas.Restore();
        _shadow = null;
        draw();
    }

    private void Blurred(float sigma, Action draw)
    {
        // A mask filter blurs within the bounds of each shape; a blurred layer would cost the whole picture each time.
        using var soft = SKMaskFilter.CreateBlur(SKBlurStyle.Normal, sigma);
        _soft = soft;
        draw();
        _soft = null;
    }

    private void Gradient(float top, float bottom, SKColor a, SKColor b)
    {
        using var paint = new SKPaint
        {
            Shader = SKShader.CreateLinearGradient(
                new SKPoint(0, top),
                new SKPoint(0, bottom),
                [a, b],
                SKShaderTileMode.Clamp
            ),
        };
        _canvas.DrawRect(0, top, _width + 0.01f, bottom - top + 0.005f, paint);
    }

    private void Box(float x, float y, float w, float h, SKColor colour) =>
        Fill(colour, p => _canvas.DrawRect(x, y, w, h, p));

    private void Circle(float x, float y, float r, SKColor colour) => Fill(colour, p => _canvas.DrawCircle(x, y, r, p));

    private void Oval(float x, float y, float rx, float ry, float angle, SKColor colour)
    {
        _canvas.Save();
        _canvas.RotateRadians(angle, x, y);
        Fill(colour, p => _canvas.DrawOval(x, y, rx, ry, p));
        _canvas.Restore();
    }

    private void Line(float x1, float y1, float x2, float y2, float width, SKColor colour)
    {
        using var paint = new SKPaint
        {
            Color = _shadow ?? colour,
            MaskFilter = _soft,
            StrokeWidth = width,
            IsAntialias = true,
            StrokeCap = SKStrokeCap.Round,
            Style = SKPaintStyle.Stroke,
        };
        _canvas.DrawLine(x1, y1, x2, y2, paint);
    }

    private void Poly(SKColor colour, params (float X, float Y)[] points)
    {
        using var builder = new SKPathBuilder();
        builder.AddPoly([.. points.Select(p => new SKPoint(p.X, p.Y))], close: true);
        using var path = builder.Detach();
        Fill(colour, p => _canvas.DrawPath(path, p));
    }

    private void Fill(SKColor colour, Action<SKPaint> draw)
    {
        using var paint = new SKPaint
        {
            Color = _shadow ?? colour,
            MaskFilter = _soft,
            IsAntialias = true,
        };
        draw(paint);
    }

    private float Chance() => _dice.NextSingle();

    private float Between(float low, float high) => low + (_dice.NextSingle() * (high - low));

    private float At(float low, float high) => Between(low, Math.Max(low, high));

    private SKColor Pick(params uint[] colours) => Hex(colours[_dice.Next(colours.Length)]);

    private static SKColor Hex(uint rgb) => new(0xFF000000 | rgb);

    private static SKColor Mix(SKColor a, SKColor b, float t) =>
        new(
            (byte)(a.Red + ((b.Red - a.Red) * t)),
            (byte)(a.Green + ((b.Green - a.Green) * t)),
            (byte)(a.Blue + ((b.Blue - a.Blue) * t))
        );
}
