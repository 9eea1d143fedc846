<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Home;

use Ortholex\App\Book\Crafts;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Shell\BadRequest;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Where flights went, to take away: home is left out unless it is asked for. */
#[AsController]
final readonly class TrackController
{
    public function __construct(private Crafts $crafts, private LogBook $book, private Tracks $tracks)
    {
    }

    #[Route('/craft/{slug}/location/track/{id<\d+>}.{format<gpx|geojson>}', name: 'location_track', methods: ['GET'])]
    public function track(string $slug, int $id, string $format, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->one($craft, $id);
        $track = $this->tracks->of($log, $request->query->getBoolean('home'))
            ?? throw BadRequest::at('track', "{$log->code} holds no position: its receiver was not heard, or it came from elsewhere.");
        $name = "$craft->name $log->code";
        $text = 'gpx' === $format
            ? $track->gpx($name, $log->flownAt)
            : json_encode($track->geoJson($name, $log->flownAt), TracksOfBook::FLAGS);

        return new Response($text, 200, [
            'Content-Type' => 'gpx' === $format ? 'application/gpx+xml' : 'application/geo+json',
            'Content-Disposition' => HeaderUtils::makeDisposition('attachment', "$log->code.$format"),
        ]);
    }
}
