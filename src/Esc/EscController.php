<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Craft\LinkService;
use Ortholex\App\Craft\Worlds;
use Ortholex\App\Record\Staging;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Shell\SheetController;
use Ortholex\App\Words\Words;
use Ortholex\Core\Settings\EscTable;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 16: all settings of all ESCs side by side. */
#[AsController]
final class EscController extends SheetController
{
    public function __construct(
        private readonly Escs $escs,
        private readonly LinkService $links,
        private readonly Staging $staging,
        private readonly Worlds $worlds,
        private readonly EntityManagerInterface $entities,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/16', name: 'escs', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);

        return $this->show(
            $craft,
            '16',
            'Esc/escs.html.twig',
            EscView::of(
                $craft,
                $this->staging->base($craft),
                $this->staging->of($craft),
                $this->links->isLinked($craft),
                $this->escs->isRead($craft),
                $this->worlds->of($craft)->store->peek()->pack,
                $request->query->getString('setting'),
                $this->words,
            ),
        );
    }

    /** The builder has looked at what a flash left. */
    #[Route('/craft/{slug}/escs/looked', name: 'escs_looked', methods: ['POST'])]
    public function looked(string $slug): JsonResponse
    {
        $this->crafts->named($slug)->redone('esc_settings');
        $this->entities->flush();

        return new JsonResponse([]);
    }

    #[Route('/craft/{slug}/escs/read', name: 'escs_read', methods: ['POST'])]
    public function read(string $slug): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $this->links->readEscs($craft);

        return new JsonResponse([
            'said' => '' === $craft->escsProblem ? \count(array_filter(Escs::identities($craft))).' ESCs answered.' : $craft->escsProblem,
        ]);
    }

    /** Stages one value for every ESC that can honour it. */
    #[Route('/craft/{slug}/escs/all', name: 'escs_all', methods: ['POST'])]
    public function all(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $key = $input->text('key', 60);
        if (!isset(EscTable::rows()[$key])) {
            throw BadRequest::at('key', "No ESC has a setting “{$key}”.");
        }
        $values = [];
        foreach (Escs::identities($craft) as $place => $esc) {
            if (null !== $esc && null === EscTable::unable($key, $esc) && isset($craft->settings["esc.$place.$key"])) {
                $values["esc.$place.$key"] = $input->text('value', 60);
            }
        }
        if ([] === $values) {
            throw BadRequest::at('key', 'No ESC that answered can honour this.');
        }
        $this->staging->stage($craft, $values);

        return new JsonResponse(['staged' => $this->staging->of($craft)]);
    }

    /** Has the board hold one ESC in its bootloader when the pack comes on next. */
    #[Route('/craft/{slug}/escs/catch', name: 'escs_catch', methods: ['POST'])]
    public function catch(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $place = Input::of($request)->text('place', 40);
        $pad = array_search($place, EscTable::pads($craft->settings), true);
        if (false === $pad) {
            throw BadRequest::at('place', "No output drives “{$place}”.");
        }
        $this->worlds->client($craft)->catchEsc($pad);

        return new JsonResponse(['said' => 'The board will catch it. Now take the pack off and on again.']);
    }
}
