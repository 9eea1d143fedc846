<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

/**
 * What a write answers: figures for scripts, a sentence for people, and where to go on.
 *
 * AnswerListener makes JSON of it for who asks for that, else sends a form back to its page, which then says the sentence.
 */
final readonly class Answer
{
    /** @param array<string, mixed> $data */
    private function __construct(public string $said, public array $data, public ?string $to)
    {
    }

    /** @param array<string, mixed> $data for scripts; “said” among it is a sentence for people */
    public static function of(array $data = []): self
    {
        return new self(\is_string($data['said'] ?? null) ? $data['said'] : '', $data, null);
    }

    public static function said(string $said): self
    {
        return self::of(['said' => $said]);
    }

    /** Goes on at this address instead of where it was asked from. */
    public function to(string $address): self
    {
        return new self($this->said, $this->data, $address);
    }
}
