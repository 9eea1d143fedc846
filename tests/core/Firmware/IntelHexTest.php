<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Firmware;

use Ortholex\Core\Firmware\Exception\HexError;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Firmware\Hex\Record;
use Ortholex\Core\Firmware\Hex\RecordType;
use Ortholex\Core\Firmware\HexImage;
use Ortholex\Core\Firmware\IntelHex;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class IntelHexTest extends TestCase
{
    /** The two data records worked through in Intel's specification of the format, revision A, and its end record. */
    public function testReadsTheRecordsOfTheSpecification(): void
    {
        $image = IntelHex::parse(":10010000214601360121470136007EFE09D2190140\n:100110002146017E17C20001FF5F16002148011928\n:00000001FF\n");
        self::assertSame(0x100, $image->lowest());
        self::assertSame('214601360121470136007efe09d219012146017e17c20001ff5f160021480119', bin2hex($image->flat()));
    }

    public function testRoundTripIsExactForAnyBlocks(): void
    {
        for ($seed = 1; $seed <= 60; ++$seed) {
            $dice = new Lcg($seed);
            $blocks = [];
            $at = $dice->whole(0, 5) * 0x0800_0000 + $dice->whole(0, 70000);
            for ($b = $dice->whole(1, 5); $b > 0; --$b) {
                $bytes = '';
                for ($n = $dice->whole(1, 700); $n > 0; --$n) {
                    $bytes .= \chr($dice->whole(0, 255));
                }
                $blocks[$at] = $bytes;
                $at += \strlen($bytes) + $dice->whole(1, 90000);
            }
            $image = HexImage::of($blocks, $dice->whole(0, 1) > 0 ? $dice->whole(0, 0x7FFFFFFF) : null);
            $again = IntelHex::parse(IntelHex::write($image));
            self::assertSame($image->blocks, $again->blocks);
            self::assertSame($image->entry, $again->entry);
            self::assertSame($image->sha256(), $again->sha256());
            self::assertCount(\count($blocks) - 1, $again->gaps());
        }
    }

    public function testGapsReadAsErasedFlash(): void
    {
        $image = HexImage::of([0x10 => 'ab', 0x15 => 'c']);
        self::assertSame("ab\xFF\xFF\xFFc", $image->flat());
        self::assertSame([[0x12, 3]], $image->gaps());
        self::assertSame(3, $image->size());
    }

    public function testSegmentAddressesCount(): void
    {
        $image = IntelHex::parse(self::records([2, 0, "\x12\x34"], [0, 0x0010, 'xyz'], [3, 0, "\x12\x34\x00\x10"], [1, 0, '']));
        self::assertSame(0x12350, $image->lowest());
        self::assertSame(0x12350, $image->entry);
    }

    /** @return iterable<string, array{string, string}> */
    public static function malformed(): iterable
    {
        $end = self::records([1, 0, '']);
        yield 'no colon' => ["10010000\n$end", 'Line 1: a record must begin with a colon'];
        yield 'odd digits' => [":1001000\n$end", 'Line 1: after the colon there must be pairs'];
        yield 'no digits' => [":0301ZZ0000\n$end", 'pairs of hexadecimal digits'];
        yield 'cut short' => [":0300\n$end", 'cut off'];
        yield 'says more than it has' => [":04000000AABB9A\n$end", 'says 4 data bytes but carries 2'];
        yield 'checksum' => [":03000000AABBCC00\n$end", 'checksum 0x00 is wrong'];
        yield 'unknown type' => [self::records([6, 0, 'a'], [1, 0, '']), 'type 0x06'];
        yield 'end record with data' => [self::records([0, 0, 'a'], [1, 0, 'x']), 'Line 2: an end record carries no data'];
        yield 'short segment address' => [self::records([2, 0, 'a'], [1, 0, '']), 'extended segment address carries 2 bytes'];
        yield 'short linear address' => [self::records([4, 0, 'abc'], [1, 0, '']), 'extended linear address carries 2 bytes'];
        yield 'short segment start' => [self::records([3, 0, 'ab'], [1, 0, '']), 'start segment address carries 4 bytes'];
        yield 'short linear start' => [self::records([5, 0, 'ab'], [1, 0, '']), 'start linear address carries 4 bytes'];
        yield 'past its segment' => [self::records([0, 0xFFFE, 'abcd'], [1, 0, '']), 'past the end of their 64 KB segment'];
        yield 'after the end' => [self::records([0, 0, 'a'], [1, 0, ''], [0, 8, 'b']), 'Line 3: a record follows the end record of line 2'];
        yield 'no end' => [self::records([0, 0, 'abc']), 'end record is missing'];
        yield 'same address twice' => [self::records([0, 0, 'abc'], [0, 64, 'x'], [0, 0, 'abc'], [1, 0, '']), 'already given in line 1'];
        yield 'overlap' => [self::records([0, 0, 'abcdef'], [0, 3, 'xyz'], [1, 0, '']), 'Line 2: the data at 0x00000003 overlap'];
        yield 'nothing in it' => [$end, 'holds no data'];
        yield 'empty file' => ['', 'end record is missing'];
        yield 'scattered' => [self::records([0, 0, 'a'], [4, 0, "\xF0\x00"], [0, 0, 'b'], [1, 0, '']), 'scattered'];
    }

    #[DataProvider('malformed')]
    public function testEachWayToBeMalformedIsItsOwnError(string $text, string $why): void
    {
        $this->expectException(FirmwareError::class);
        $this->expectExceptionMessage($why);
        IntelHex::parse($text);
    }

    public function testAnySingleFlippedByteIsFound(): void
    {
        $bytes = '';
        $dice = new Lcg(3);
        for ($i = 0; $i < 300; ++$i) {
            $bytes .= \chr($dice->whole(0, 255));
        }
        $text = IntelHex::write(HexImage::of([0x0800_FF80 => $bytes], 0x0800_FF84));
        $clean = IntelHex::parse($text);
        for ($i = 0, $n = \strlen($text); $i < $n; ++$i) {
            foreach ([0x01, 0x08, 0x40] as $flip) {
                $torn = $text;
                $torn[$i] = \chr(\ord($torn[$i]) ^ $flip);
                if (0 === strcasecmp($torn, $text) || ("\n" === $text[$i] && '' === trim($torn[$i]))) {
                    continue;
                }
                try {
                    self::assertEquals($clean, IntelHex::parse($torn), "byte $i");
                } catch (FirmwareError) {
                    $this->addToAssertionCount(1);
                }
            }
        }
    }

    /** @param array{int, int, string} ...$records type, address, data */
    private static function records(array ...$records): string
    {
        $out = '';
        foreach ($records as [$type, $address, $data]) {
            $bytes = pack('CnC', \strlen($data), $address, $type).$data;
            $out .= ':'.strtoupper(bin2hex($bytes.\chr(-array_sum((array) unpack('C*', $bytes)) & 0xFF)))."\n";
        }

        return $out;
    }

    /** @return iterable<string, array{\Closure(string): void, string}> what writes the file, and what is said of it */
    public static function hostile(): iterable
    {
        yield 'ten megabytes of newlines' => [
            static function (string $path): void {
                file_put_contents($path, str_repeat("\n", 10_000_000));
            },
            'more lines than any flash image',
        ];
        yield 'one line of 20 MB' => [
            static function (string $path): void {
                file_put_contents($path, ':'.str_repeat('0', 20_000_000));
            },
            'Line 1: it is longer than',
        ];
        yield '400 MB' => [
            static function (string $path): void {
                (new \SplFileObject($path, 'r+b'))->ftruncate(400_000_000);
            },
            'larger than 24 MB',
        ];
        yield 'scattered records' => [
            static function (string $path): void {
                $file = new \SplFileObject($path, 'wb');
                for ($i = 0; $i < 120_000; ++$i) {
                    if (0 === $i % 20_000) {
                        $file->fwrite(Record::of(RecordType::ExtendedLinearAddress, 0, pack('n', intdiv($i, 20_000)))->toText()."\n");
                    }
                    $file->fwrite(Record::of(RecordType::Data, 3 * ($i % 20_000), "\1")->toText()."\n");
                }
                $file->fwrite(":00000001FF\n");
            },
            'pieces that do not follow on',
        ];
    }

    /** @param \Closure(string): void $write */
    #[DataProvider('hostile')]
    public function testWhateverTheFileItIsRefusedWithALineInBoundedMemory(\Closure $write, string $says): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'hex');
        $write($path);
        $before = memory_get_peak_usage();
        try {
            IntelHex::ofFile($path);
            self::fail('It was taken.');
        } catch (HexError $e) {
            self::assertStringContainsString($says, $e->getMessage());
        } finally {
            unlink($path);
        }
        self::assertLessThan(60_000_000, memory_get_peak_usage() - $before);
    }
}
