<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;
use Twig\Environment;
use Twig\Extension\AbstractExtension;
use Twig\Node\Node;
use Twig\Node\TextNode;
use Twig\NodeVisitor\NodeVisitorInterface;

/** Templates are indented to be read; what is sent is not: of any white space with a line's end in it, that end stays. At compile time. */
#[AutoconfigureTag('twig.extension')]
final class CompactHtml extends AbstractExtension implements NodeVisitorInterface
{
    public function getNodeVisitors(): array
    {
        return [$this];
    }

    public function enterNode(Node $node, Environment $env): Node
    {
        return $node;
    }

    public function leaveNode(Node $node, Environment $env): Node
    {
        $text = $node instanceof TextNode ? $node->getAttribute('data') : null;
        if (\is_string($text) && str_ends_with($node->getSourceContext()?->getName() ?? '', '.html.twig')) {
            $node->setAttribute('data', preg_replace('/\s*\n\s*/', "\n", $text));
        }

        return $node;
    }

    public function getPriority(): int
    {
        return 0;
    }
}
