<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Link;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Link\ByteLink;
use Ortholex\Core\Link\EscClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\Message;
use PHPUnit\Framework\TestCase;

/** What our end makes of an ESC that stays silent, garbles, refuses or answers something else. */
final class EscClientTest extends TestCase
{
    public function testAnIdentityIsReadFieldByField(): void
    {
        $esc = self::with(
            [Message::fields(['Osier 20', 'K7', '48', '350', '0', '4096', '20480', '512', 'Withy', '1.4.0', '48', '1'])],
            Message::ESC_IDENTITY,
        )->identity();
        self::assertSame(
            ['Osier 20', 'K7', 48, 350, false, 0x1000, 0x5000, 512, 'Withy', '1.4.0', 48, true, false],
            [
                $esc->maker,
                $esc->layout,
                $esc->clockMhz,
                $esc->deadTimeNs,
                $esc->measuresHeat,
                $esc->flashFrom,
                $esc->flashEnd,
                $esc->pageBytes,
                $esc->family,
                $esc->version?->toString(),
                $esc->switchingKhz,
                $esc->rpmFeedback,
                $esc->inBootloader(),
            ],
        );
        self::assertTrue(
            self::with(
                [Message::fields(['Osier 20', 'K7', '48', '350', '0', '4096', '20480', '512', '', '', '0', '0'])],
                Message::ESC_IDENTITY,
            )
                ->identity()
                ->inBootloader(),
        );
        $this->expectException(LinkError::class);
        $this->expectExceptionMessage('too short');
        self::with([Message::fields(['Osier 20'])], Message::ESC_IDENTITY)->identity();
    }

    public function testSilenceAndGarbageAreAskedThreeTimes(): void
    {
        $client = self::with([null, 'garbage', ''], Message::ESC_WRITE);
        $client->writeSettings(SettingSet::of(['advance_deg' => 20.0]));
        self::assertSame(3, $client->tries);
        $this->expectException(LinkError::class);
        $this->expectExceptionMessage('The ESC on output 3 did not acknowledge “write settings”, asked 3 times.');
        self::with([null, null, null, ''], Message::ESC_WRITE)->writeSettings(SettingSet::of([]));
    }

    public function testARefusalIsNotAskedAgain(): void
    {
        $link = new ScriptedEsc(['refuse'], Message::ESC_RUN);
        try {
            (new EscClient(new BoardClient($link), 3))->run();
            self::fail('It was taken.');
        } catch (LinkError $e) {
            self::assertTrue($e->refused);
            self::assertStringContainsString('not now, says the ESC on output 3', $e->getMessage());
        }
        self::assertSame(1, $link->asked);
    }

    public function testSettingsComeBackWithTheirTypes(): void
    {
        $settings = self::with(
            [Message::fields(['advance_deg', '16.0', 'brake_on_slow_down', 'true', 'direction', '"as_wired"', 'odd', '{"a":1}'])],
            Message::ESC_READ,
        )->readSettings();
        $held = ['advance_deg' => 16.0, 'brake_on_slow_down' => true, 'direction' => 'as_wired', 'odd' => ''];
        self::assertSame($held, $settings->toArray());
    }

    /** @param list<string|null> $answers payloads; null for silence, "garbage" for bytes that are no frame */
    private static function with(array $answers, int $kind): EscClient
    {
        return new EscClient(new BoardClient(new ScriptedEsc($answers, $kind)), 3);
    }
}

/** A board that relays to an ESC which answers from a list. */
final class ScriptedEsc implements ByteLink
{
    public int $asked = 0;
    private string $out = '';
    private int $now = 0;

    /** @param list<string|null> $answers */
    public function __construct(private readonly array $answers, private readonly int $kind)
    {
    }

    public function write(string $bytes): void
    {
        $answer = $this->answers[$this->asked++] ?? null;
        $inner = match ($answer) {
            null => '',
            'garbage' => "\x00\x01\xD5\x2Dnoise",
            'refuse' => (new Message(Message::REFUSAL, 'not now'))->encode(),
            default => (new Message($this->kind | Message::ANSWER, $answer))->encode(),
        };
        $this->out .= (new Message(Message::RELAY | Message::ANSWER, $inner))->encode();
    }

    public function read(int $most, int $timeoutMs): string
    {
        $this->now += 5;
        $bytes = substr($this->out, 0, $most);
        $this->out = substr($this->out, $most);

        return $bytes;
    }

    public function nowMs(): int
    {
        return $this->now;
    }
}
