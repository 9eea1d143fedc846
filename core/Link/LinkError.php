<?php

declare(strict_types=1);

namespace Ortholex\Core\Link;

/** The device did not answer as it should; $lost tells a pulled cable from a silent or refusing device. */
final class LinkError extends \RuntimeException
{
    private function __construct(string $message, public readonly bool $lost, public readonly bool $refused)
    {
        parent::__construct($message);
    }

    public static function cableOut(): self
    {
        return new self('The USB cable is out. Plug it in on the bench strip.', true, false);
    }

    public static function silent(Request $request, int $ms): self
    {
        return new self(
            "The board did not answer “{$request}” within $ms ms. Check that it has power and is not restarting.",
            false,
            false,
        );
    }

    public static function dead(): self
    {
        return new self(
            'The board has power but does not answer. A cable that only charges looks like this, and so does firmware of another '.
                "board: press the board's bootloader button (bench strip, under Faults), link again, and write an image that fits.",
            false,
            false,
        );
    }

    /**
     * @param list<string> $failed places
     * @param list<string> $done   places
     */
    public static function escsLeft(array $failed, array $done, int $tries): self
    {
        $words = static fn (array $places): string => str_replace('_', ' ', implode(', ', array_filter($places, 'is_string')));

        return new self(
            ucfirst($words($failed)).
                " did not acknowledge, asked $tries times".
                ([] === $done ? '' : '; '.$words($done).(1 === \count($done) ? ' is' : ' are').' done').
                '. Suspect the signal wire or the ESC itself: check the joint, take the pack off and on, and commit again. '.
                'What is left stays staged.',
            false,
            false,
        );
    }

    /** @param Request|string $request what was asked, or what was to be done by several requests */
    public static function refused(Request|string $request, string $why): self
    {
        return new self("The board refused “{$request}”: $why.", false, true);
    }

    public static function escSilent(int $pad, Request $request, int $tries): self
    {
        return new self(
            "The ESC on output $pad did not acknowledge “{$request}”, asked ".(1 === $tries ? 'once' : "$tries times").'.',
            false,
            false,
        );
    }

    public static function escRefused(int $pad, Request $request, string $why): self
    {
        return self::refused($request, "$why, says the ESC on output $pad");
    }

    public static function answerTooShort(Request $request): self
    {
        return self::refused($request, 'its answer is too short');
    }
}
