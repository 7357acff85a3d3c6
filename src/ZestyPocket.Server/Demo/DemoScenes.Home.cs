using SkiaSharp;

namespace ZestyPocket.Server.Demo;

/// <summary>Indoors: tables, stairs, a stove, and what lies about.</summary>
public sealed partial class DemoScenes
{
    private void Breakfast()
    {
        Gradient(0, 1, Pick(0x8FA9B0, 0xD9CBB2, 0xB9C4A0), Hex(0x7D8A86));
        for (var i = 0; i < 12; i++)
        {
            Line(0, i / 11f, _width, i / 11f, 0.02f, new SKColor(255, 255, 255, 50));
            Line(i * _width / 11f, 0, i * _width / 11f, 1, 0.02f, new SKColor(255, 255, 255, 50));
        }

        foreach (var (x, y) in new[] { (0.24f, 0.3f), (0.72f, 0.28f), (0.3f, 0.78f), (0.76f, 0.76f) })
        {
            Plate(_width * x, y, 0.15f);
            Shadowed(() => Circle(_width * x, y, 0.085f, Hex(0xF7F1E4)));
            Circle(_width * x, y, 0.07f, Pick(0xC9A26A, 0xE8D9B5, 0x8A3A3A));
            Line((_width * x) + 0.17f, y - 0.08f, (_width * x) + 0.19f, y + 0.1f, 0.012f, Hex(0xC4C6C8));
        }

        Shadowed(() => Box(_width * 0.44f, 0.42f, 0.16f, 0.2f, Pick(0xE0762A, 0x3B7EA1)));
        Box((_width * 0.44f) + 0.02f, 0.47f, 0.12f, 0.06f, Hex(0xF7F1E4));
        Shadowed(() =>
            Poly(
                Hex(0xE9E6DC),
                (_width * 0.46f, 0.04f),
                (_width * 0.66f, 0.02f),
                (_width * 0.68f, 0.2f),
                (_width * 0.47f, 0.22f)
            )
        );
        LightPatch();
    }

    private void Sink()
    {
        Gradient(0, 0.55f, Hex(0xC7D2CC), Hex(0x9FB0A8));
        Box(_width * 0.22f, 0.05f, _width * 0.56f, 0.4f, Hex(0xDCE8EA));
        Blurred(0.02f, () => Circle(_width * 0.4f, 0.3f, 0.12f, Hex(0x6F8F55)));
        Blurred(0.02f, () => Circle(_width * 0.6f, 0.34f, 0.14f, Hex(0x55764A)));
        Box(_width * 0.495f, 0.05f, 0.018f, 0.4f, Hex(0xF4F0E6));
        Gradient(0.55f, 1, Hex(0x8A6A48), Hex(0x5B4228));
        Shadowed(() => Box(_width * 0.2f, 0.6f, _width * 0.6f, 0.34f, Hex(0xF4F1E8)));
        Box(_width * 0.24f, 0.64f, _width * 0.52f, 0.26f, Hex(0xA9C4CF));
        for (var i = 0; i < 90; i++)
        {
            Circle(
                _width * Between(0.25f, 0.75f),
                Between(0.65f, 0.89f),
                Between(0.006f, 0.024f),
                new SKColor(255, 255, 255, 150)
            );
        }

        for (var i = 0; i < 4; i++)
        {
            Plate(_width * (0.34f + (0.1f * i)), 0.74f, 0.08f);
        }

        Line(_width * 0.5f, 0.6f, _width * 0.5f, 0.46f, 0.024f, Hex(0xB9BDC0));
        Line(_width * 0.5f, 0.46f, _width * 0.58f, 0.5f, 0.024f, Hex(0xB9BDC0));
    }

    private void Stairs()
    {
        Gradient(0, 1, Pick(0xD8C9A8, 0xC9D2C0, 0xC9B4A8), Hex(0x8A7A66));
        for (var i = 0; i < 9; i++)
        {
            var (y, inset) = (0.96f - (i * 0.105f), i * 0.035f);
            Box(_width * 0.12f + inset, y, (_width * 0.76f) - (2 * inset), 0.05f, Hex(0xA97C50));
            Box(_width * 0.12f + inset, y - 0.055f, (_width * 0.76f) - (2 * inset), 0.055f, Hex(0xEFE6D6));
            if (Chance() < 0.75f)
            {
                var x = _width * Between(0.25f, 0.7f);
                Shadowed(() =>
                    Oval(
                        x,
                        y - 0.005f,
                        0.06f,
                        0.025f,
                        Between(-0.3f, 0.3f),
                        Pick(0xC8452F, 0x2F5D74, 0x3A2A1E, 0xE0B23C, 0x8A5A7A)
                    )
                );
                Shadowed(() =>
                    Oval(x + 0.09f, y, 0.06f, 0.025f, Between(-0.5f, 0.5f), Pick(0xC8452F, 0x2F5D74, 0x3A2A1E))
                );
            }
        }

        Line(_width * 0.9f, 1, _width * 0.62f, 0, 0.03f, Hex(0x6E4729));
    }

    private void Soup()
    {
        Gradient(0, 1, Hex(0x4A4B4E), Hex(0x2B2A2C));
        foreach (var (x, y) in new[] { (0.2f, 0.2f), (0.82f, 0.84f), (0.84f, 0.2f) })
        {
            Circle(_width * x, y, 0.15f, Hex(0x1A1A1C));
            Circle(_width * x, y, 0.1f, Hex(0x343436));
        }

        var (cx, cy) = (_width * 0.46f, 0.55f);
        Shadowed(() => Circle(cx, cy, 0.37f, Pick(0xB4472F, 0x2F5D74, 0xE0B23C)));
        var soup = Pick(0xC9622A, 0x8FA04A, 0xC9A23A);
        Circle(cx, cy, 0.33f, soup);
        for (var i = 0; i < 60; i++)
        {
            var (a, r) = (Chance() * MathF.Tau, 0.3f * MathF.Sqrt(Chance()));
            Circle(
                cx + (r * MathF.Cos(a)),
                cy + (r * MathF.Sin(a)),
                Between(0.008f, 0.03f),
                Pick(0xE8D27A, 0x6F8F3A, 0xD86A2A, 0xF0E6C8).WithAlpha(210)
            );
        }

        Shadowed(() => Line(cx + 0.06f, cy, _width * 0.98f, 0.42f, 0.034f, Hex(0x9A6B42)));
        for (var i = 0; i < 7; i++)
        {
            Blurred(
                0.05f,
                () =>
                    Oval(
                        cx + Between(-0.25f, 0.25f),
                        Between(0.05f, 0.6f),
                        0.05f,
                        0.16f,
                        Between(-0.4f, 0.4f),
                        new SKColor(255, 255, 255, 60)
                    )
            );
        }
    }

    private void Boots()
    {
        Gradient(0, 0.6f, Pick(0x6E7F6A, 0x8A4A3E, 0x4F6B80), Hex(0x4A4038));
        for (var i = 0; i < 6; i++)
        {
            Line(i * _width / 5, 0, i * _width / 5, 0.6f, 0.006f, new SKColor(0, 0, 0, 60));
        }

        Gradient(0.6f, 1, Hex(0xB09A7A), Hex(0x7D6A50));
        var x = _width * 0.1f;
        foreach (
            var (tall, colour) in new[]
            {
                (0.4f, 0x3A4A34u),
                (0.44f, 0x2B2A2Cu),
                (0.26f, 0xE0B23Cu),
                (0.36f, 0x8A3A44u),
            }
        )
        {
            for (var one = 0; one < 2; one++)
            {
                var at = x + (one * 0.09f);
                Shadowed(() => Box(at, 0.84f - tall, 0.075f, tall, Hex(colour)));
                Shadowed(() => Oval(at + 0.06f, 0.85f, 0.085f, 0.04f, 0, Hex(colour)));
                Box(at, 0.84f - tall, 0.075f, 0.02f, Mix(Hex(colour), SKColors.White, 0.3f));
            }

            x += _width * 0.23f;
        }
    }

    private void Letter()
    {
        Wood(Hex(0x8A5E3A), Hex(0x5F3E24));
        LightPatch();
        _canvas.Save();
        _canvas.RotateDegrees(Between(-12, 12), _width / 2, 0.5f);
        Shadowed(() => Box(_width * 0.16f, 0.2f, _width * 0.56f, 0.42f, Hex(0xF2E6CC)));
        Box(_width * 0.6f, 0.24f, 0.1f, 0.12f, Pick(0x7A2430, 0x2F5D74, 0x3F6B45));
        for (var i = 0; i < 3; i++)
        {
            Line(
                _width * 0.3f,
                0.42f + (0.05f * i),
                _width * (0.55f - (0.05f * i)),
                0.42f + (0.05f * i),
                0.006f,
                Hex(0x2B3A5A)
            );
        }

        Shadowed(() => Box(_width * 0.3f, 0.5f, _width * 0.5f, 0.44f, Hex(0xFBF7EC)));
        for (var i = 0; i < 10; i++)
        {
            Line(
                _width * 0.34f,
                0.55f + (0.037f * i),
                _width * Between(0.62f, 0.76f),
                0.55f + (0.037f * i),
                0.004f,
                Hex(0x3A4A6A)
            );
        }

        _canvas.Restore();
        Shadowed(() => Line(_width * 0.82f, 0.3f, _width * 0.9f, 0.72f, 0.022f, Hex(0x20222A)));
    }

    private void Map()
    {
        Wood(Hex(0x9A7A52), Hex(0x6E5233));
        Shadowed(() =>
            Poly(Hex(0xE6E4C8), (0.06f, 0.1f), (_width - 0.1f, 0.04f), (_width - 0.04f, 0.92f), (0.1f, 0.96f))
        );
        for (var i = 0; i < 9; i++)
        {
            Blurred(
                0.02f,
                () =>
                    Oval(
                        _width * Between(0.12f, 0.88f),
                        Between(0.15f, 0.88f),
                        0.14f,
                        0.09f,
                        Chance() * 3,
                        Pick(0xB9CF9A, 0xC9D6A8, 0xD9CBA0).WithAlpha(150)
                    )
            );
        }

        var (px, py) = (0.1f, 0.7f);
        for (var i = 0; i < 24; i++)
        {
            var (nx, ny) = (px + (_width / 27), py + Between(-0.06f, 0.045f));
            Line(px, py, nx, ny, 0.016f, Hex(0x6F9DB8));
            (px, py) = (nx, ny);
        }

        for (var i = 1; i < 5; i++)
        {
            Line(_width * i / 5, 0.07f, _width * i / 5, 0.94f, 0.004f, new SKColor(90, 80, 50, 70));
        }

        Shadowed(() => Circle(_width * 0.76f, 0.28f, 0.13f, Hex(0xC9A44C)));
        Circle(_width * 0.76f, 0.28f, 0.11f, Hex(0xF7F1E0));
        Poly(Hex(0xC8452F), (_width * 0.76f, 0.19f), (_width * 0.76f + 0.02f, 0.28f), (_width * 0.76f - 0.02f, 0.28f));
        Poly(Hex(0x34343F), (_width * 0.76f, 0.37f), (_width * 0.76f + 0.02f, 0.28f), (_width * 0.76f - 0.02f, 0.28f));
    }

    private void Workshop()
    {
        Gradient(0, 0.62f, Hex(0x8A7A5E), Hex(0x6B5A44));
        for (var i = 0; i < 7; i++)
        {
            var (x, tall) = (_width * (0.1f + (0.13f * i)), Between(0.16f, 0.34f));
            Shadowed(() => Line(x, 0.08f, x, 0.08f + tall, 0.018f, Pick(0x9A6B42, 0xC8452F, 0x34343F)));
            Shadowed(() => Box(x - 0.03f, 0.08f + tall, 0.06f, Between(0.03f, 0.12f), Hex(0x9AA0A4)));
        }

        Wood(Hex(0xA97C50), Hex(0x7A5332), 0.62f);
        Shadowed(() =>
            Poly(
                Hex(0xD9B98A),
                (_width * 0.2f, 0.78f),
                (_width * 0.75f, 0.7f),
                (_width * 0.78f, 0.8f),
                (_width * 0.22f, 0.9f)
            )
        );
        for (var i = 0; i < 26; i++)
        {
            Circle(
                _width * Between(0.15f, 0.85f),
                Between(0.8f, 0.98f),
                Between(0.008f, 0.02f),
                Hex(0xE7CFA0).WithAlpha(200)
            );
        }

        LightPatch();
    }

    private void TrainWindow()
    {
        Gradient(0, 1, Hex(0x3E4A55), Hex(0x2B333B));
        var (l, t, w, h) = (_width * 0.08f, 0.1f, _width * 0.84f, 0.62f);
        _canvas.Save();
        _canvas.ClipRoundRect(new SKRoundRect(new SKRect(l, t, l + w, t + h), 0.05f), antialias: true);
        Sky();
        Ridge(0.36f, 0.05f, Hex(0x8AA6A0));
        Ridge(0.48f, 0.04f, Hex(0x8FAA5E));
        for (var i = 0; i < 12; i++)
        {
            Blurred(
                0.012f,
                () =>
                    Line(
                        At(0, _width),
                        Between(0.55f, 0.72f),
                        At(0, _width),
                        Between(0.55f, 0.72f),
                        0.03f,
                        Pick(0x6C8A3A, 0x4A6A30, 0xB8A24A)
                    )
            );
        }

        _canvas.Restore();
        Box(0, 0.8f, _width, 0.03f, Hex(0xC9CDD0));
        Shadowed(() => Box(_width * 0.64f, 0.66f, 0.1f, 0.15f, Hex(0xE8E2D2)));
        Shadowed(() =>
            Poly(
                Hex(0xF2E6CC),
                (_width * 0.2f, 0.82f),
                (_width * 0.44f, 0.8f),
                (_width * 0.48f, 0.92f),
                (_width * 0.2f, 0.94f)
            )
        );
        Bust(Junie, _width * 0.9f, 0.5f, 0.13f, -1);
    }
}
