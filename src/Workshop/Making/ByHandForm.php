<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Making;

use Ortholex\App\Settings\File\SettingsFile;
use Ortholex\App\Settings\File\SettingsFileError;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Shell\SentText;
use Ortholex\Core\Airframe\Layout;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Symfony\Component\HttpFoundation\Request;

/** What is said of a craft that is known only by its logs and settings. */
final readonly class ByHandForm
{
    private const MOST_BYTES = 200_000;

    private function __construct(public string $name, public SettingSet $settings, public bool $assumed)
    {
    }

    /** @throws BadRequest when a figure or the file cannot be */
    public static function of(Request $request, Catalogue $catalogue, SettingsFile $files): self
    {
        $input = Input::of($request);
        $current = Version::parse(Catalogue::CURRENT);
        $settings = $catalogue->defaults($current);
        $given = self::given($request, $files);
        $layout = Layout::tryFrom($input->text('layout', 20));
        $own = null === $layout || isset($given['frame.layout']) ? [] : ['frame.layout' => $layout->value];
        foreach (['frame.diagonal_mm' => [60, 1200], 'props.diameter_mm' => [20, 500], 'pack.cells' => [1, 12]] as $name => [$low, $high]) {
            $field = substr($name, (int) strpos($name, '.') + 1);
            if ('' !== $input->text($field, 20) && !isset($given[$name])) {
                $own[$name] = $catalogue->get($name, $current)->check($input->number($field, $low, $high), $current);
            }
        }

        return new self($input->text('name', PlanForm::LONGEST_NAME), $settings->with($own)->with($given), $given->isEmpty());
    }

    /** @throws BadRequest */
    private static function given(Request $request, SettingsFile $files): SettingSet
    {
        $text = SentText::of($request, 'file', 'yaml', self::MOST_BYTES, 'list of settings');
        try {
            return '' === trim($text) ? SettingSet::none() : $files->text($text, 'The file of settings');
        } catch (SettingsFileError $e) {
            throw BadRequest::at('file', $e->getMessage());
        }
    }
}
