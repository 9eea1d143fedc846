<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Symfony\Component\HttpFoundation\Request;

/** Fields of a posted form or JSON body, by type. */
final readonly class Input
{
    /** @param array<mixed> $fields */
    private function __construct(private array $fields)
    {
    }

    /** @throws BadRequest when the body is no JSON object */
    public static function of(Request $request): self
    {
        if (str_contains((string) $request->headers->get('Content-Type', ''), 'json')) {
            $data = json_decode($request->getContent(), true);

            return new self(\is_array($data) ? $data : throw BadRequest::at('body', 'The request body is not a JSON object.'));
        }

        return new self($request->request->all());
    }

    /** The same of what stands in the address. */
    public static function query(Request $request): self
    {
        return new self($request->query->all());
    }

    public function text(string $field, int $longest = 2000): string
    {
        $value = $this->fields[$field] ?? '';
        if (!\is_scalar($value) || mb_strlen((string) $value) > $longest) {
            throw BadRequest::at($field, "“{$field}” must be a text of at most $longest characters.");
        }
        self::demandReadable($field, (string) $value);

        return trim((string) $value);
    }

    /** @throws BadRequest where it is no text that could be kept and shown again */
    private static function demandReadable(string $field, string $value): void
    {
        if (!mb_check_encoding($value, 'UTF-8')) {
            throw BadRequest::at(mb_scrub($field, 'UTF-8'), '“'.mb_scrub($field, 'UTF-8').'” is not readable text: it must be UTF-8.');
        }
        if (str_contains($value, "\0")) {
            throw BadRequest::at($field, "“{$field}” holds a null character, which no text has.");
        }
    }

    public function flag(string $field): bool
    {
        return \in_array($this->fields[$field] ?? false, [true, 1, '1', 'on', 'true'], true);
    }

    public function whole(string $field, int $low, int $high): int
    {
        $value = $this->fields[$field] ?? null;
        if (!is_numeric($value) || (int) $value != $value || $value < $low || $value > $high) {
            throw BadRequest::at($field, "“{$field}” must be a whole number from $low to $high.");
        }

        return (int) $value;
    }

    /** A number from low to high; a comma may stand for the point. */
    public function number(string $field, float $low, float $high): float
    {
        $text = str_replace(',', '.', trim($this->text($field, 40)));
        $value = is_numeric($text) ? (float) $text : \NAN;
        if (!is_finite($value) || $value < $low || $value > $high) {
            throw BadRequest::at($field, \sprintf('“%s” must be a number from %g to %g.', str_replace('_', ' ', $field), $low, $high));
        }

        return $value;
    }

    /** @return array<string, mixed> */
    public function map(string $field): array
    {
        $value = $this->fields[$field] ?? [];
        $map = [];
        foreach (\is_array($value) ? $value : throw BadRequest::at($field, "“{$field}” must be a set of named values.") as $name => $one) {
            $map[(string) $name] = $one;
            self::demandReadable($field, (string) $name);
        }
        array_walk_recursive($map, static function (mixed $one, int|string $name): void {
            if (\is_string($one)) {
                self::demandReadable((string) $name, $one);
            }
        });

        return $map;
    }
}
