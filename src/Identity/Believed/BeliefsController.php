<?php

declare(strict_types=1);

namespace Ortholex\App\Identity\Believed;

use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\Core\Link\LinkError;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class BeliefsController extends SheetController
{
    public function __construct(private readonly Beliefs $beliefs, private readonly LinkService $links)
    {
    }

    /**
     * Which stands, by setting, or one for all.
     *
     * @throws LinkError when it is not linked: what the craft holds now cannot be known
     */
    #[Route('/craft/{slug}/believed', name: 'believed', methods: ['POST'])]
    public function decide(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $input = Input::of($request);
        $all = $input->text('all', 10);
        $said = $input->map('stands');
        $stands = [];
        $open = $this->beliefs->open($craft);
        foreach ($open as $one) {
            $word = '' !== $all ? $all : ($said[$one->name] ?? '');
            if ('' === $word) {
                continue;
            }
            $stands[$one->name] = (\is_string($word) ? Stands::tryFrom($word) : null)
                ?? throw BadRequest::at("stands[$one->name]", 'Say “craft” or “book”: which of the two is to stand.');
        }
        if ([] === $stands && [] !== $open) {
            throw BadRequest::at("stands[{$open[0]->name}]", 'Say of at least one setting which is to stand.');
        }

        return Answer::said($this->beliefs->decide($craft, $stands)->said());
    }
}
