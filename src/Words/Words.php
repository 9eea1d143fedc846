<?php

declare(strict_types=1);

namespace Ortholex\App\Words;

use Ortholex\Core\Fact\Code;
use Ortholex\Core\Fact\Explained;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingGroup;
use Ortholex\Core\Wiring\Part;
use Symfony\Component\Translation\TranslatorBagInterface;
use Symfony\Contracts\Translation\TranslatorInterface;

/**
 * Words for what rules have to say, wherever they are shown: pages, JSON, the command line, print. They stand in
 * translations/facts, found by the code of a fact.
 *
 * Numbers are rounded here rather than by ICU, whose halves go to the even digit: the JSON of the command line has always
 * rounded as printf does.
 */
final readonly class Words
{
    private const DOMAIN = 'facts';
    private const SETTINGS = 'settings';
    private const MOST_DIGITS = 3;

    public function __construct(private TranslatorInterface $translator, private TranslatorBagInterface $catalogues)
    {
    }

    /** A fact, a code that needs no figures, or the name of a case of an enum. */
    public function of(Fact|\BackedEnum $said): string
    {
        return match (true) {
            $said instanceof Fact => $this->translator->trans((string) $said->code->value, $this->figures($said->figures), self::DOMAIN),
            $said instanceof Code => $this->translator->trans((string) $said->value, [], self::DOMAIN),
            default => $this->translator->trans(self::kind($said).'.'.$said->value, [], self::DOMAIN),
        };
    }

    /** The same as the beginning of a sentence. */
    public function capital(Fact|\BackedEnum $said): string
    {
        return ucfirst($this->of($said));
    }

    /**
     * @param iterable<Fact|\BackedEnum> $said
     *
     * @return list<string>
     */
    public function all(iterable $said): array
    {
        $all = [];
        foreach ($said as $one) {
            $all[] = $this->of($one);
        }

        return $all;
    }

    /** A name that core knows, such as rear_left; what has no words is shown as it is, such as the number of a motor. */
    public function name(string $name): string
    {
        return $this->catalogues->getCatalogue()->has("name.$name", self::DOMAIN)
            ? $this->translator->trans("name.$name", [], self::DOMAIN)
            : $name;
    }

    /** @return array<string, string> terms of ours, a line each */
    public function glossary(): array
    {
        $terms = [];
        foreach ($this->catalogues->getCatalogue()->all('glossary') as $term => $line) {
            $terms[(string) $term] = \is_string($line) ? $line : '';
        }

        return $terms;
    }

    /** What a setting is called. */
    public function label(Setting $setting): string
    {
        return $this->ofSetting('label', $setting->name);
    }

    /** What a setting does, in a sentence or two. */
    public function help(Setting $setting): string
    {
        return $this->ofSetting('help', $setting->name);
    }

    /** Why a setting has the default that it has, in a line. */
    public function why(Setting $setting): string
    {
        return $this->ofSetting('why', $setting->name);
    }

    /** A whole group of settings, as a heading. */
    public function group(SettingGroup $group): string
    {
        return ucfirst(str_replace('_', ' ', $group->value));
    }

    /** What a flight by a card is for. */
    public function purpose(Card $card): string
    {
        return $this->translator->trans("card_for.$card->value", [], self::DOMAIN);
    }

    /** What a part is, in a few words. */
    public function about(Part $part): string
    {
        return $this->translator->trans("part.$part->id", [], self::DOMAIN);
    }

    /** What went wrong, with the reason of the first row where a log has none that can be read. */
    public function ofProblem(\Throwable $e): string
    {
        if ($e instanceof Explained) {
            return $this->of($e->fact());
        }

        return $e instanceof LogError && null !== $e->firstBad
            ? rtrim($e->getMessage(), '.').': '.$this->of($e->firstBad->reason).'.'
            : $e->getMessage();
    }

    /**
     * Words of a setting stand under its name, or under its name with a * for the axis, place, channel, pad, port or stage.
     *
     * @param 'label'|'help'|'why' $what
     */
    private function ofSetting(string $what, string $name): string
    {
        if (EscTable::owns($name)) {
            [$place, $key] = EscTable::parts($name);
            $words = $this->translator->trans("esc.$what.$key", [], self::SETTINGS);

            return 'label' === $what
                ? $this->translator->trans('esc.of', ['Of' => ucfirst($this->name($place)), 'label' => lcfirst($words)], self::SETTINGS)
                : $words;
        }
        $catalogue = $this->catalogues->getCatalogue();
        if ($catalogue->has("$what.$name", self::SETTINGS)) {
            return $this->translator->trans("$what.$name", [], self::SETTINGS);
        }
        if ($catalogue->has("esc.$what.$name", self::SETTINGS)) {
            return $this->translator->trans("esc.$what.$name", [], self::SETTINGS);
        }
        $parts = explode('.', $name);
        foreach (\array_slice($parts, 1, null, true) as $i => $part) {
            $key = "$what.".implode('.', array_replace($parts, [$i => '*']));
            if ($catalogue->has($key, self::SETTINGS)) {
                $of = $catalogue->has("of_$parts[0].$part", self::SETTINGS)
                    ? $this->translator->trans("of_$parts[0].$part", [], self::SETTINGS)
                    : $this->name($part);

                return $this->translator->trans($key, ['of' => $of, 'Of' => ucfirst($of)], self::SETTINGS);
            }
        }

        return $name;
    }

    /**
     * @param array<string, float|int|bool|string|list<string>|Fact|list<Fact>> $figures
     *
     * @return array<string, float|int|string>
     */
    private function figures(array $figures): array
    {
        $out = [];
        foreach ($figures as $key => $figure) {
            $out += match (true) {
                \is_bool($figure) => [$key => $figure ? 'true' : 'false'],
                \is_int($figure), \is_float($figure) => self::number($key, $figure),
                \is_array($figure) => $this->list($key, $figure),
                default => self::text($key, \is_string($figure) ? $this->name($figure) : $this->of($figure)),
            };
        }

        return $out;
    }

    /** @return array<string, float|int|string> */
    private static function number(string $key, float|int $figure): array
    {
        $out = [
            $key => $figure,
            "{$key}_g" => \sprintf('%g', $figure),
            "{$key}_hex4" => \sprintf('%04X', $figure),
            "{$key}_hex8" => \sprintf('%08X', $figure),
        ];
        for ($digits = 0; $digits <= self::MOST_DIGITS; ++$digits) {
            $out["{$key}_$digits"] = \sprintf("%.{$digits}f", $figure);
        }

        return $out;
    }

    /**
     * @param list<string>|list<Fact> $figures
     *
     * @return array<string, string>
     */
    private function list(string $key, array $figures): array
    {
        $words = array_map(fn (Fact|string $f): string => $f instanceof Fact ? $this->of($f) : $this->name($f), $figures);

        return [
            "{$key}_and" => implode(' and ', $words),
            "{$key}_then" => implode(', then ', $words),
            "{$key}_list" => implode(', ', $words),
            "{$key}_the" => implode(' and the ', $words),
            ...self::text("{$key}_and", implode(' and ', $words)),
            "{$key}_count" => (string) \count($words),
        ];
    }

    /** @return array<string, string> as it is, and with a capital */
    private static function text(string $key, string $words): array
    {
        return [$key => $words, ucfirst($key) => ucfirst($words)];
    }

    /** Class of an enum as the words know it: TermState is term_state. */
    private static function kind(\BackedEnum $case): string
    {
        $short = substr($case::class, (int) strrpos($case::class, '\\') + 1);

        return strtolower((string) preg_replace('~(?<!^)[A-Z]~', '_$0', $short));
    }
}
