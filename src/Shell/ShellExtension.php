<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Ortholex\Core\Settings\Setting;
use Symfony\Component\HttpFoundation\RequestStack;
use Twig\Extension\AbstractExtension;
use Twig\TwigFilter;
use Twig\TwigFunction;

/** The few helpers that templates need: values as text. */
final class ShellExtension extends AbstractExtension
{
    public function __construct(private readonly RequestStack $requests)
    {
    }

    public function getFunctions(): array
    {
        return [new TwigFunction('style_nonce', $this->nonce(...))];
    }

    public function nonce(): string
    {
        $request = $this->requests->getMainRequest();

        return null === $request ? '' : SafetyListener::nonce($request);
    }

    public function getFilters(): array
    {
        return [new TwigFilter('value', $this->value(...)), new TwigFilter('plain', $this->plain(...))];
    }

    /** A setting's value as it is shown: digits of its step, words for switches and choices. */
    public function value(mixed $value, Setting $setting): string
    {
        return match (true) {
            \is_bool($value) => $value ? 'on' : 'off',
            \is_int($value), \is_float($value) => number_format((float) $value, $setting->digits(), '.', "\u{2009}"),
            '' === $value => 'none',
            default => str_replace('_', ' ', \is_scalar($value) ? (string) $value : '?'),
        };
    }

    /** Any scalar, shortest sensible form. */
    public function plain(mixed $value): string
    {
        return match (true) {
            \is_bool($value) => $value ? 'on' : 'off',
            \is_float($value) => rtrim(rtrim(number_format($value, 3, '.', ''), '0'), '.'),
            '' === $value => 'none',
            null === $value => '–',
            default => \is_scalar($value) ? (string) $value : '?',
        };
    }
}
