<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\Core\Craft\SettingSet;

/** One ESC to be written, as it was ordered. */
final readonly class EscOrder
{
    /** What one is known by that tells no serial number: this, and its pad. */
    public const OUTPUT = 'output ';

    /**
     * @param string          $id    serial number of the ESC, or its pad where it tells none
     * @param string          $place where it sits
     * @param string          $image name of the file on the shelf
     * @param string          $key   of the release that was chosen, as sheet 12 knows it
     * @param string          $why   it failed; '' where it did not
     * @param SettingSet|null $held  what it held before, by key, to come back; null while that was not read
     * @param string|null     $ran   key of the release that it ran before; null where only its bootloader did
     */
    public function __construct(
        public string $id,
        public string $place,
        public string $image,
        public string $key,
        public EscOrderState $state = EscOrderState::Waiting,
        public string $why = '',
        public ?SettingSet $held = null,
        public ?string $ran = null,
    ) {
    }

    /** Whether an ESC that tells this serial number is the one; where either is not known, the place decides. */
    public function isFor(string $serial): bool
    {
        return '' === $serial || str_starts_with($this->id, self::OUTPUT) || $serial === $this->id;
    }

    public function at(string $place, EscOrderState $state): self
    {
        return new self($this->id, $place, $this->image, $this->key, $state, $this->why, $this->held, $this->ran);
    }

    public function holding(SettingSet $held): self
    {
        return new self($this->id, $this->place, $this->image, $this->key, EscOrderState::Writing, '', $held, $this->ran);
    }

    public function failed(string $why): self
    {
        return new self($this->id, $this->place, $this->image, $this->key, EscOrderState::Failed, $why, $this->held, $this->ran);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'place' => $this->place,
            'image' => $this->image,
            'key' => $this->key,
            'state' => $this->state->value,
            'why' => $this->why,
            'held' => $this->held?->toArray(),
            'ran' => $this->ran,
        ];
    }

    /** @param array<string, mixed> $data as toArray() gave it */
    public static function fromArray(string $id, array $data): self
    {
        $text = static fn (string $key): string => \is_string($data[$key] ?? null) ? $data[$key] : '';
        $held = $data['held'] ?? null;
        $values = [];
        foreach (\is_array($held) ? $held : [] as $key => $value) {
            if (\is_scalar($value)) {
                $values[(string) $key] = $value;
            }
        }

        return new self(
            $id,
            $text('place'),
            $text('image'),
            $text('key'),
            EscOrderState::tryFrom($text('state')) ?? EscOrderState::Waiting,
            $text('why'),
            \is_array($held) ? SettingSet::of($values) : null,
            '' === $text('ran') ? null : $text('ran'),
        );
    }
}
