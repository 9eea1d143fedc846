<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Symfony\Component\DependencyInjection\Attribute\AutowireDecorated;
use Symfony\Component\Translation\MessageCatalogueInterface;
use Symfony\Component\Translation\TranslatorBagInterface;
use Symfony\Contracts\Translation\LocaleAwareInterface;
use Symfony\Contracts\Translation\TranslatorInterface;

/** In tests what has no words is an error: on a page its code would stand instead. */
final readonly class StrictWords implements TranslatorInterface, TranslatorBagInterface, LocaleAwareInterface
{
    private const OURS = ['facts', 'settings', 'glossary'];

    public function __construct(
        #[AutowireDecorated] private TranslatorInterface&TranslatorBagInterface&LocaleAwareInterface $words,
    ) {
    }

    /** @param array<string, mixed> $parameters */
    public function trans(?string $id, array $parameters = [], ?string $domain = null, ?string $locale = null): string
    {
        if (\in_array($domain, self::OURS, true) && !$this->words->getCatalogue()->has((string) $id, $domain)) {
            throw new \LogicException("There are no words for $id.");
        }

        return $this->words->trans((string) $id, $parameters, $domain, $locale);
    }

    public function getCatalogue(?string $locale = null): MessageCatalogueInterface
    {
        return $this->words->getCatalogue($locale);
    }

    /** @return list<MessageCatalogueInterface> */
    public function getCatalogues(): array
    {
        return array_values($this->words->getCatalogues());
    }

    public function setLocale(string $locale): void
    {
        $this->words->setLocale($locale);
    }

    public function getLocale(): string
    {
        return $this->words->getLocale();
    }
}
