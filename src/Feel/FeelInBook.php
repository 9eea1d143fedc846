<?php

declare(strict_types=1);

namespace Ortholex\App\Feel;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Ortholex\App\Settings\Staging;
use Ortholex\Core\Settings\Setting;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheet 22: a test feel that is still on. */
final readonly class FeelInBook implements NextStepSource
{
    public function __construct(private UrlGeneratorInterface $urls, private Staging $staging, private EntityManagerInterface $entities)
    {
    }

    public function steps(Craft $craft): iterable
    {
        if ([] === $craft->putBack) {
            return;
        }
        $away = false;
        foreach ($craft->putBack as $name => $value) {
            $away = $away || ($craft->settings->has($name) && !Setting::same($craft->settings[$name], $value));
        }
        // It is back, or was never committed and is not staged any more: nothing is to be remembered.
        if (!$away && $this->staging->of($craft)->where(static fn (string $n): bool => isset($craft->putBack[$n]))->isEmpty()) {
            $craft->putBack = [];
            $this->entities->flush();

            return;
        }
        if ($away) {
            $to = $this->urls->generate('feel', ['slug' => $craft->slug]);
            yield new NextStep(Urgency::Uneven, 'The test feel is still on; what stood before is kept.', $to, 'Put it back');
        }
    }
}
