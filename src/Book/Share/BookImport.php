<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Share;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Crafts;
use Symfony\Component\DependencyInjection\Attribute\TaggedIterator;

/** A book from a file becomes a craft of the Workshop: what is sound of it; the rest is told. */
final readonly class BookImport
{
    private const LONGEST_NAME = 40;

    /** @param iterable<BookPart> $parts */
    public function __construct(
        private EntityManagerInterface $entities,
        private Crafts $crafts,
        #[TaggedIterator(BookPart::class)] private iterable $parts,
    ) {
    }

    /** @throws BookError when it is no book */
    public function open(string $path): BookReader
    {
        return BookReader::open($path);
    }

    /**
     * The craft, with all that is read at once.
     *
     * @throws BookError when there is nothing in it to make a craft of; none is made then
     */
    public function craft(BookReader $book): Craft
    {
        if (null === $book->yaml('craft.yaml')) {
            $why = $book->left['craft.yaml'] ?? 'it is not there';
            throw BookError::of("Nothing was taken: craft.yaml, which says what the craft is, cannot be read, as $why.");
        }
        $name = \is_string($book->about['name'] ?? null) && mb_check_encoding($book->about['name'], 'UTF-8') ? $book->about['name'] : '';
        $name = mb_substr(trim((string) preg_replace('~\p{C}+~u', ' ', $name)), 0, self::LONGEST_NAME);

        return $this->crafts->making(fn (): Craft => $this->entities->wrapInTransaction(function () use ($name, $book): Craft {
            $name = $this->crafts->freeName($name);
            $craft = new Craft($this->crafts->freeSlug($name), $name, '', '', '', []);
            $this->entities->persist($craft);
            $this->entities->flush();
            $this->read($craft, $book, false);
            if ([] === $book->taken) {
                throw BookError::of('Nothing was taken: '.implode(' ', array_map(
                    static fn (string $file, string $why): string => "$file: $why.",
                    array_keys($book->left),
                    $book->left,
                )));
            }

            return $craft;
        }));
    }

    /** What of a book is read at once, or what takes long. */
    public function read(Craft $craft, BookReader $book, bool $long): void
    {
        foreach ($this->parts as $part) {
            if ($part->isLong() === $long) {
                $part->read($craft, $book);
            }
        }
        $this->entities->flush();
    }
}
