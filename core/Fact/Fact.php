<?php

declare(strict_types=1);

namespace Ortholex\Core\Fact;

/**
 * One thing that a rule has to say: which, and its figures. Its words are found above core, by the code alone.
 *
 * A figure is a number, a name (of an axis, a place, a setting, a part), a list of names, or facts of their own.
 */
final readonly class Fact
{
    /** @param array<string, float|int|bool|string|list<string>|self|list<self>> $figures by the name that the words know them by */
    private function __construct(public Code $code, public array $figures)
    {
    }

    /** @param float|int|bool|string|\BackedEnum|list<string>|list<\BackedEnum>|self|list<self>|null ...$figures named; null is left out */
    public static function of(Code $code, float|int|bool|string|\BackedEnum|array|self|null ...$figures): self
    {
        $named = [];
        foreach ($figures as $name => $figure) {
            $plain = \is_array($figure) ? array_map(self::plain(...), $figure) : self::plain($figure);
            if (null !== $plain) {
                $named[(string) $name] = $plain;
            }
        }

        /** @var array<string, float|int|bool|string|list<string>|self|list<self>> $named */
        return new self($code, $named);
    }

    public function is(Code $code): bool
    {
        return $this->code === $code;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $figures = [];
        foreach ($this->figures as $name => $figure) {
            $figures[$name] = match (true) {
                $figure instanceof self => $figure->toArray(),
                \is_array($figure) => array_map(
                    static fn (self|string $f): array|string => $f instanceof self ? $f->toArray() : $f,
                    $figure,
                ),
                default => $figure,
            };
        }

        return ['code' => $this->code->value, 'figures' => $figures];
    }

    /**
     * @param Stored             $data as toArray() gave it
     * @param class-string<Code> ...$of the kinds of code that can stand there, or in the facts within
     *
     * @throws StoredDataUnreadable when it is none
     */
    public static function fromArray(Stored $data, string ...$of): self
    {
        $figures = [];
        foreach ($data->map('figures') as $name => $figure) {
            $name = (string) $name;
            if (!\is_array($figure)) {
                $figures[$name] = \is_scalar($figure) ? $figure : throw StoredDataUnreadable::at($name, 'a figure');
            } elseif (isset($figure['code'])) {
                $figures[$name] = self::fromArray($data->part('figures')->part($name), ...$of);
            } elseif (\is_array($figure[0] ?? null)) {
                $rows = $data->part('figures')->rows($name);
                $figures[$name] = array_map(static fn (Stored $f): self => self::fromArray($f, ...$of), $rows);
            } else {
                $figures[$name] = $data->part('figures')->texts($name);
            }
        }
        $code = $data->text('code');
        foreach ($of as $codes) {
            $case = $codes::tryFrom($code);
            if (null !== $case) {
                return new self($case, $figures);
            }
        }

        throw StoredDataUnreadable::at($code, 'a known code');
    }

    private static function plain(mixed $figure): mixed
    {
        return $figure instanceof \BackedEnum ? $figure->value : $figure;
    }
}
