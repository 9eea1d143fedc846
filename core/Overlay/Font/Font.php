<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay\Font;

use Ortholex\Core\Overlay\OverlayError;
use Ortholex\Core\Overlay\OverlayFlaw;

/**
 * The letters of an overlay chip: up to 256 pictures of 12 by 18 dots, each see-through (.), black (o) or white (#).
 *
 * The open plain format: a head line, then for each picture `glyph` with its code and 18 lines of 12 dots. Lines that begin with ; are
 * comments.
 */
final readonly class Font
{
    public const WIDE = 12;
    public const HIGH = 18;
    public const HEAD = 'ortholex-overlay-font 12x18';

    /** Two bits a dot, row by row: bytes of one picture in the chip. */
    public const BYTES = self::WIDE * self::HIGH / 4;

    /** @param array<int, list<string>> $glyphs rows of dots, by code */
    private function __construct(public array $glyphs)
    {
    }

    /** The set that ships with Ortholex. */
    public static function shipped(): self
    {
        $glyphs = [];
        foreach (Letters::ROWS as $letter => $rows) {
            $glyphs[\ord((string) $letter)] = self::drawn($rows);
        }
        ksort($glyphs);

        return new self($glyphs);
    }

    /** @throws OverlayError naming the line that cannot be read */
    public static function read(string $text): self
    {
        $lines = preg_split('~\r\n|\n|\r~', trim($text)) ?: [];
        if (self::HEAD !== trim($lines[0] ?? '')) {
            throw OverlayError::of(OverlayFlaw::BadFont, line: 1, given: mb_substr(mb_scrub($lines[0] ?? ''), 0, 40));
        }
        $glyphs = [];
        $code = null;
        foreach (\array_slice($lines, 1, preserve_keys: true) as $n => $line) {
            $line = rtrim($line);
            $bad = static fn (): OverlayError => OverlayError::of(
                OverlayFlaw::BadFont,
                line: $n + 1,
                given: mb_substr(mb_scrub($line), 0, 40),
            );
            if ('' === $line || ';' === $line[0]) {
                continue;
            }
            if (1 === preg_match('~^glyph (\d{1,3})$~', $line, $m)) {
                if ((null !== $code && self::HIGH !== \count($glyphs[$code])) || (int) $m[1] > 255 || isset($glyphs[(int) $m[1]])) {
                    throw $bad();
                }
                $code = (int) $m[1];
                $glyphs[$code] = [];
            } elseif (null !== $code && \count($glyphs[$code]) < self::HIGH && 1 === preg_match('~^[.o#]{12}$~', $line)) {
                $glyphs[$code][] = $line;
            } else {
                throw $bad();
            }
        }
        if (null === $code || self::HIGH !== \count($glyphs[$code])) {
            throw OverlayError::of(OverlayFlaw::BadFont, line: \count($lines), given: 'the end');
        }
        ksort($glyphs);

        return new self($glyphs);
    }

    public function write(): string
    {
        $text = self::HEAD."\n";
        foreach ($this->glyphs as $code => $rows) {
            $text .= "glyph $code\n".implode("\n", $rows)."\n";
        }

        return $text;
    }

    /** One picture as the chip takes it: two bits a dot, 0 see-through, 1 black, 2 white, the first dot in the low bits. */
    public function bytes(int $code): string
    {
        $dots = implode('', $this->glyphs[$code] ?? array_fill(0, self::HIGH, str_repeat('.', self::WIDE)));
        $bytes = '';
        foreach (str_split($dots, 4) as $four) {
            $byte = 0;
            foreach (str_split($four) as $i => $dot) {
                $byte |= (int) strpos('.o#', $dot) << (2 * $i);
            }
            $bytes .= \chr($byte);
        }

        return $bytes;
    }

    /** @param array<int, string> $bytes of each picture, by code */
    public static function ofBytes(array $bytes): self
    {
        $glyphs = [];
        foreach ($bytes as $code => $of) {
            $dots = '';
            foreach (str_split($of) as $byte) {
                for ($i = 0; $i < 4; ++$i) {
                    $dots .= '.o##'[(\ord($byte) >> (2 * $i)) & 3];
                }
            }
            $glyphs[$code] = str_split($dots, self::WIDE);
        }
        ksort($glyphs);

        return new self($glyphs);
    }

    /**
     * White dots of one picture as a path of 12 by 18.
     *
     * @return array{string, string} white and black
     */
    public function paths(int $code): array
    {
        $paths = ['#' => '', 'o' => ''];
        foreach ($this->glyphs[$code] ?? [] as $y => $row) {
            preg_match_all('~#+|o+~', $row, $runs, \PREG_OFFSET_CAPTURE);
            foreach ($runs[0] as [$run, $x]) {
                $paths[$run[0]] .= \sprintf('M%d %dh%dv1h-%dz', $x, $y, \strlen($run), \strlen($run));
            }
        }

        return [$paths['#'], $paths['o']];
    }

    /**
     * A letter of 5 by 7, each dot twice as wide and high, with a black rim that makes it readable before anything.
     *
     * @param list<int> $rows five bits each
     *
     * @return list<string>
     */
    private static function drawn(array $rows): array
    {
        $white = [];
        foreach ($rows as $y => $bits) {
            for ($x = 0; $x < 5; ++$x) {
                if (0 !== ($bits & (16 >> $x))) {
                    foreach ([[0, 0], [1, 0], [0, 1], [1, 1]] as [$dx, $dy]) {
                        $white[2 + 2 * $y + $dy][1 + 2 * $x + $dx] = true;
                    }
                }
            }
        }
        $lines = [];
        for ($y = 0; $y < self::HIGH; ++$y) {
            $line = '';
            for ($x = 0; $x < self::WIDE; ++$x) {
                $rim = false;
                for ($dy = -1; $dy <= 1; ++$dy) {
                    for ($dx = -1; $dx <= 1; ++$dx) {
                        $rim = $rim || isset($white[$y + $dy][$x + $dx]);
                    }
                }
                $line .= isset($white[$y][$x]) ? '#' : ($rim ? 'o' : '.');
            }
            $lines[] = $line;
        }

        return $lines;
    }
}
