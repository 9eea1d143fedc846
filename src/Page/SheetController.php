<?php

declare(strict_types=1);

namespace Ortholex\App\Page;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Crafts;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Contracts\Service\Attribute\Required;
use Twig\Environment;

/** What all sheets' controllers share: finding the craft, and hanging a view in the frame. */
abstract class SheetController
{
    private Environment $twig;
    private ShellBuilder $shell;
    protected Crafts $crafts;

    #[Required]
    public function useShell(Environment $twig, ShellBuilder $shell, Crafts $crafts): void
    {
        $this->twig = $twig;
        $this->shell = $shell;
        $this->crafts = $crafts;
    }

    protected function show(Craft $craft, string $sheet, string $template, ?object $view): Response
    {
        return new Response(
            $this->twig->render($template, [
                'shell' => $this->shell->of($craft, $sheet),
                'view' => $view,
                'craft' => $craft,
                'here' => ['slug' => $craft->slug],
            ]),
        );
    }

    /** @param array<string, mixed> $with */
    protected function piece(string $template, array $with): Response
    {
        return new Response($this->twig->render($template, $with));
    }
}
