<?php

declare(strict_types=1);

namespace Ortholex\Tests\House;

use PhpParser\Node;
use PhpParser\NodeVisitorAbstract;

/** What one PHP file holds that the house has rules about. */
final class Findings extends NodeVisitorAbstract
{
    /** A string that could be the name of a kind: a word, or words joined by underscores. */
    private const KIND = '~^[a-z][a-z]+(_[a-z]+)*$~';

    /** Three words in a row, as no name, format or pattern has them. */
    private const SENTENCE = '~[\p{L}’\']{2,},? [\p{L}’\']{1,},? [\p{L}’\']{2,}~u';

    /** @var list<string> classes used */
    public array $uses = [];

    /** @var array<string, string> reason by long function */
    public array $long = [];

    /** @var list<string> */
    public array $kinds = [];

    /** @var list<string> */
    public array $sentences = [];

    /** @var list<string> */
    public array $sheets = [];

    /** @var array<string, list<string>> constants that hold a word, by class */
    private array $constants = [];

    private bool $inException = false;
    private string $class = '';

    public function __construct(private readonly string $path)
    {
    }

    public function enterNode(Node $node): ?int
    {
        if ($node instanceof Node\Name\FullyQualified) {
            $this->uses[] = $node->toString();
        }
        if ($node instanceof Node\Stmt\Class_) {
            $names = array_map(static fn (Node\Name $n): string => $n->toString(), [
                ...null === $node->extends ? [] : [$node->extends],
                ...$node->implements,
            ]);
            $this->inException = [] !== array_filter($names, static fn (string $n): bool => 1 === preg_match('~(Exception|Error)$~', $n));
        }
        if ($node instanceof Node\Stmt\ClassLike) {
            $this->class = (string) $node->name;
            $this->literals($node->getDocComment()?->getText() ?? '', $node->getStartLine());
        }
        if ($node instanceof Node\FunctionLike) {
            $this->ofFunction($node);
        }
        if ($node instanceof Node\Stmt\ClassConst) {
            $this->ofConstants($node);
        }
        if ($node instanceof Node\Expr\BinaryOp\Identical || $node instanceof Node\Expr\BinaryOp\NotIdentical) {
            foreach ([$node->left, $node->right] as $side) {
                if ($side instanceof Node\Scalar\String_ && 1 === preg_match(self::KIND, $side->value)) {
                    $this->kinds[] = \sprintf('%s:%d compares with “%s”', $this->path, $node->getStartLine(), $side->value);
                }
            }
        }
        if ($node instanceof Node\Expr\Match_ && !self::isTrue($node->cond)) {
            foreach ($node->arms as $arm) {
                foreach ($arm->conds ?? [] as $cond) {
                    if ($cond instanceof Node\Scalar\String_ && 1 === preg_match(self::KIND, $cond->value)) {
                        $this->kinds[] = \sprintf('%s:%d matches “%s”', $this->path, $cond->getStartLine(), $cond->value);
                    }
                }
            }
        }
        if ($node instanceof Node\Scalar\String_ || $node instanceof Node\InterpolatedStringPart) {
            $this->ofText($node->value, $node->getStartLine());
        }

        return null;
    }

    public function leaveNode(Node $node): null
    {
        if ($node instanceof Node\Stmt\Class_) {
            $this->inException = false;
        }

        return null;
    }

    private function ofText(string $text, int $line): void
    {
        if (!$this->inException && 1 === preg_match(self::SENTENCE, $text)) {
            $this->sentences[] = \sprintf('%s:%d “%s”', $this->path, $line, mb_strimwidth($text, 0, 60, '…'));
        }
        if (1 === preg_match('~\bsheet \d\d\b|^[1-7][1-6]$~i', $text)) {
            $this->sheets[] = \sprintf('%s:%d “%s”', $this->path, $line, mb_strimwidth($text, 0, 40, '…'));
        }
    }

    private function ofFunction(Node\FunctionLike $node): void
    {
        $doc = $node->getDocComment()?->getText() ?? '';
        $this->literals($doc, $node->getStartLine());
        $lines = $node->getEndLine() - $node->getStartLine() + 1;
        if ($lines > House::MOST_LINES_OF_A_FUNCTION && ($node instanceof Node\Stmt\ClassMethod || $node instanceof Node\Stmt\Function_)) {
            $because = 1 === preg_match('~Long because (?<why>[^.]+)\.~s', (string) preg_replace('~\s*\n\s*\*\s*~', ' ', $doc), $m);
            $this->long[\sprintf('%s::%s, %d lines', $this->path, $node->name, $lines)] = $because ? $m['why'] : '';
        }
    }

    /** Several constants of one class that hold a word each stand for kinds; a lone one is a name. */
    private function ofConstants(Node\Stmt\ClassConst $node): void
    {
        $this->literals($node->getDocComment()?->getText() ?? '', $node->getStartLine());
        foreach ($node->consts as $const) {
            if ($const->value instanceof Node\Scalar\String_ && 1 === preg_match(self::KIND, $const->value->value)) {
                $this->constants[$this->class][] = \sprintf(
                    '%s:%d %s::%s',
                    $this->path,
                    $const->getStartLine(),
                    $this->class,
                    $const->name,
                );
            }
        }
    }

    public function afterTraverse(array $nodes): ?array
    {
        foreach ($this->constants as $together) {
            array_push($this->kinds, ...\count($together) > 1 ? $together : []);
        }

        return null;
    }

    /** Unions of literal strings in a docblock. */
    private function literals(string $doc, int $line): void
    {
        if (1 === preg_match("~'[a-z_ ]+'\|'[a-z_ ]+'~", $doc, $m)) {
            $this->kinds[] = \sprintf('%s:%d has the type %s', $this->path, $line, $m[0]);
        }
    }

    private static function isTrue(Node $node): bool
    {
        return $node instanceof Node\Expr\ConstFetch && 'true' === $node->name->toLowerString();
    }
}
