<?php

declare(strict_types=1);

namespace Ortholex\Core\Link;

/** What a device is asked to do, as it is named where it does not. */
enum Task: string
{
    case WhoAreYou = 'who_are_you';
    case HowAreYou = 'how_are_you';
    case ReadSensors = 'read_sensors';
    case ReadSettings = 'read_settings';
    case WriteSettings = 'write_settings';
    case Write = 'write';
    case KeepSettings = 'keep_settings';
    case WipeSettings = 'wipe_settings';
    case SpinOutput = 'spin_output';
    case SpeakToEsc = 'speak_to_the_ESC_on_output';
    case CatchEsc = 'catch_the_ESC_on_output';
    case HoldOutputs = 'hold_all_outputs_at';
    case ReadRpm = 'read_the_rpm_of_output';
    case RecordGyro = 'record_the_gyro';
    case ListenAtUart = 'listen_at_UART';
    case CatchEdges = 'catch_the_changes_at_UART';
    case ReadRadio = 'read_the_radio';
    case Rehearse = 'arm_for_a_rehearsal';
    case Restart = 'restart';
    case ToBootloader = 'enter_the_bootloader';
    case WritePage = 'write_page';
    case ReadFlash = 'read_flash_at';
    case Run = 'start_the_firmware';
    case SpeakAtUart = 'speak_at_UART';
    case ReadCompass = 'read_the_compass';
    case DriveServo = 'drive_the_camera_servo_at_output';
    case ReadPicture = 'read_the_picture';
    case ReadRecorder = 'read_the_recorder';
    case ReadRecording = 'read_recording';
    case EraseRecorder = 'erase_the_recorder';
}
