//! Speech line by line, with the deeds that a careful person hears in each line.
//!
//! A file under `speech/` is one narration. Under each line that tells a deed stands `> act thing + thing, act thing`. Where
//! the reader does not yet hear what is there, the answer stands behind `?` instead: the line is counted as missed, and the
//! test fails as soon as it is heard, so that the mark is taken off.

mod marked;
mod told;

use paso_reader::reading::deeds;
use paso_reader::recording::Recording;
use rstest::rstest;
use std::fmt::Write;
use told::{Line, lines, words};

/// One line a segment, six seconds each, under the title that the file gives it.
fn transcript(file: &str, lines: &[Line]) -> Recording {
    let title = file.lines().find(|l| l.starts_with("# Recording: ")).unwrap_or_default();
    let mut text = format!("{title}\n\n");
    for (n, line) in lines.iter().enumerate() {
        let _ = write!(text, "[{:02}:{:02}] {}\n\n", n * 6 / 60, n * 6 % 60, line.said);
    }
    Recording::parse(text.as_bytes()).expect("a transcript")
}

#[rstest]
#[case::a_coffee_machine(include_str!("speech/coffee-machine.txt"), 10)]
#[case::breathless(include_str!("speech/breathless.txt"), 8)]
#[case::a_photo_frame(include_str!("speech/photo-frame.txt"), 13)]
#[case::a_tile_saw(include_str!("speech/tile-cutter.txt"), 3)]
#[case::a_coffee_grinder(include_str!("speech/bean-grinder.txt"), 5)]
#[case::a_rain_gauge(include_str!("speech/rain-gauge.txt"), 4)]
#[case::in_halves(include_str!("speech/in-halves.txt"), 5)]
#[case::two_at_a_bench(include_str!("speech/two-at-a-bench.txt"), 10)]
#[case::a_service_manual(include_str!("speech/service-manual.txt"), 4)]
#[case::a_lamp(include_str!("speech/lamp.txt"), 6)]
#[case::a_label_maker(include_str!("speech/label-maker.txt"), 7)]
#[case::a_smart_clock(include_str!("speech/smart-clock.txt"), 3)]
#[case::a_weather_station(include_str!("speech/weather-station.txt"), 3)]
#[case::a_video_recorder(include_str!("speech/video-recorder.txt"), 4)]
#[case::a_diving_light(include_str!("speech/diving-light.txt"), 7)]
#[case::a_bread_maker(include_str!("speech/bread-maker.txt"), 11)]
#[case::a_field_camera(include_str!("speech/field-camera.txt"), 3)]
#[case::a_baby_monitor(include_str!("speech/baby-monitor.txt"), 3)]
#[case::a_tyre_inflator(include_str!("speech/tyre-inflator.txt"), 13)]
#[case::counter_talk(include_str!("speech/counter-talk.txt"), 3)]
#[case::run_together(include_str!("speech/run-together.txt"), 1)]
#[case::shop_talk(include_str!("speech/shop-talk.txt"), 2)]
#[case::a_trainer(include_str!("speech/trainer.txt"), 4)]
#[case::captions(include_str!("speech/captions.txt"), 6)]
#[case::a_tutorial(include_str!("speech/bench-tutorial.txt"), 3)]
#[case::another_tutorial(include_str!("speech/base-tutorial.txt"), 0)]
#[case::a_service_film(include_str!("speech/service-voice.txt"), 1)]
#[case::run_on_in_a_shop(include_str!("speech/runon-shop.txt"), 0)]
#[case::a_look_inside(include_str!("speech/look-inside.txt"), 5)]
#[case::not_native(include_str!("speech/not-native.txt"), 2)]
#[case::a_hobby_fixer(include_str!("speech/hobby-fixer.txt"), 4)]
#[case::a_dock_lamp(include_str!("speech/dock-lamp.txt"), 1)]
#[case::a_remote_control(include_str!("speech/remote-control.txt"), 4)]
#[case::a_trail_tracker(include_str!("speech/trail-tracker.txt"), 4)]
#[case::a_card_terminal(include_str!("speech/card-terminal.txt"), 2)]
#[case::a_slide_viewer(include_str!("speech/slide-viewer.txt"), 3)]
#[case::a_bike_camera(include_str!("speech/bike-camera.txt"), 10)]
#[case::a_desk_fan(include_str!("speech/desk-fan.txt"), 6)]
#[case::a_star_globe(include_str!("speech/star-globe.txt"), 1)]
#[case::a_kitchen_scale(include_str!("speech/kitchen-scale.txt"), 2)]
#[case::an_intercom(include_str!("speech/intercom.txt"), 1)]
#[case::an_ebook_reader(include_str!("speech/ebook-fix.txt"), 8)]
#[case::a_doorbell_camera(include_str!("speech/doorbell-camera.txt"), 3)]
#[case::a_hand_mixer(include_str!("speech/mixer-stand.txt"), 3)]
#[case::a_hand_radio(include_str!("speech/run-on-radio.txt"), 10)]
#[case::a_tablet_screen(include_str!("speech/tablet-screen.txt"), 5)]
#[case::a_barcode_gun(include_str!("speech/scanner-gun.txt"), 4)]
#[case::a_camera_at_the_bench(include_str!("speech/camera-shop.txt"), 11)]
#[case::a_door_lock(include_str!("speech/door-lock.txt"), 4)]
#[case::a_laser_level(include_str!("speech/laser-level.txt"), 8)]
#[case::a_hair_clipper(include_str!("speech/hair-clipper.txt"), 3)]
#[case::a_robot_mower(include_str!("speech/robot-mower.txt"), 3)]
#[case::a_toothbrush(include_str!("speech/toothbrush.txt"), 6)]
#[case::a_guitar_pedal(include_str!("speech/guitar-pedal.txt"), 9)]
#[case::a_stair_lamp(include_str!("speech/stair-lamp.txt"), 6)]
#[case::a_sewing_pedal(include_str!("speech/sewing-pedal.txt"), 7)]
#[case::a_pressure_logger(include_str!("speech/press-gauge.txt"), 5)]
#[case::a_singing_microphone(include_str!("speech/singing-mic.txt"), 12)]
#[case::a_water_timer(include_str!("speech/water-timer.txt"), 6)]
#[case::toy_binoculars(include_str!("speech/toy-binoculars.txt"), 8)]
#[case::a_hand_blender(include_str!("speech/hand-blender.txt"), 9)]
#[case::a_tower_fan(include_str!("speech/air-fan.txt"), 5)]
fn every_line_is_heard(#[case] file: &str, #[case] missed: usize) {
    let lines = lines(file);
    let deeds = deeds(&transcript(file, &lines));
    let mut wrong = String::new();
    for (n, line) in lines.iter().enumerate() {
        let heard = words(&deeds.iter().filter(|d| d.cue == n).collect::<Vec<_>>());
        wrong += &marked::wrong(line.said, line.missed, line.told, &heard);
    }
    assert!(wrong.is_empty(), "{wrong}");
    assert_eq!(lines.iter().filter(|l| l.missed).count(), missed, "lines that are not heard yet");
}
