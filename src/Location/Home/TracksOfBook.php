<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Home;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Share\BookPart;
use Ortholex\App\Book\Share\BookReader;
use Ortholex\App\Book\Share\BookWriter;
use Ortholex\App\FlightLog\Log;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;

/** tracks/C-0001.geojson …: where flights went, for maps of others. Ours are drawn from the logs, so nothing is taken from them. */
#[AsTaggedItem(priority: 5)]
final readonly class TracksOfBook implements BookPart
{
    public const FLAGS = \JSON_UNESCAPED_UNICODE | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;
    private const FOLDER = 'tracks';

    public function __construct(private EntityManagerInterface $entities, private Tracks $tracks)
    {
    }

    public function isLong(): bool
    {
        return true;
    }

    /** A track begins and ends at home: without that being asked for there are none. */
    public function write(Craft $craft, BookWriter $book): void
    {
        if (!$book->choice->logs || !$book->choice->home) {
            return;
        }
        foreach ($this->entities->getRepository(Log::class)->findBy(['craft' => $craft], ['code' => 'ASC', 'id' => 'ASC']) as $log) {
            $track = $this->tracks->of($log, true);
            $name = $book->choice->names ? "$craft->name $log->code" : $log->code;
            if (null !== $track) {
                $book->text(self::FOLDER."/$log->code.geojson", json_encode($track->geoJson($name, $log->flownAt), self::FLAGS)."\n");
            }
        }
    }

    /** Only whether they are whole is looked at, and told. */
    public function read(Craft $craft, BookReader $book): void
    {
        foreach ($book->names(self::FOLDER) as $name) {
            $book->text($name);
        }
    }
}
