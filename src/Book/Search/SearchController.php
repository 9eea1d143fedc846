<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Search;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Crafts;
use Symfony\Component\DependencyInjection\Attribute\TaggedIterator;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;
use Twig\Environment;

/** What the search box finds in a craft's book: all that the sheets let be found. */
#[AsController]
final readonly class SearchController
{
    /** @param iterable<SearchSource> $sources */
    public function __construct(
        private Crafts $crafts,
        #[TaggedIterator(SearchSource::class)] private iterable $sources,
        private Environment $twig,
    ) {
    }

    #[Route('/craft/{slug}/search.json', name: 'search', methods: ['GET'])]
    public function index(string $slug): JsonResponse
    {
        return new JsonResponse(
            array_map(
                static fn (SearchHit $h): array => ['kind' => $h->kind->value, 'name' => $h->name, 'about' => $h->about, 'to' => $h->to],
                $this->all($this->crafts->named($slug)),
            ),
        );
    }

    /** The same for who has no scripts. */
    #[Route('/craft/{slug}/find', name: 'find', methods: ['GET'])]
    public function page(string $slug, Request $request): Response
    {
        $words = $request->query->getString('words');
        $hits = array_values(
            array_filter(
                $this->all($this->crafts->named($slug)),
                static fn (SearchHit $h): bool => '' === $words
                    ? HitKind::Sheet === $h->kind || HitKind::Action === $h->kind
                    : false !== mb_stripos("$h->name $h->about", $words),
            ),
        );

        return new Response($this->twig->render('Book/find.html.twig', ['words' => $words, 'hits' => \array_slice($hits, 0, 60)]));
    }

    /** @return list<SearchHit> in the order of their kinds */
    private function all(Craft $craft): array
    {
        $found = [];
        foreach ($this->sources as $source) {
            foreach ($source->hits($craft) as $hit) {
                $found[$hit->kind->value][] = $hit;
            }
        }

        return array_merge(...array_map(static fn (HitKind $k): array => $found[$k->value] ?? [], HitKind::cases()));
    }
}
