//! The API on a real PostgreSQL: edits and their clashes, undo across restarts, the shelf, publishing, refusals.

use paso_core::finding::Stop;
use paso_core::publish::{Block, LineKind};
use paso_server::serve;
use rocket::http::{ContentType, Header, Status};
use rocket::local::asynchronous::{Client, LocalResponse};
use rstest::rstest;
use serde_json::{Value, json};
use uuid::Uuid;

const KETTLE: &str = "[0:00] Remove four Phillips PH1 screws, length 8 millimetres, from the base plate. Lift off the base plate.\n\n\
    [0:20] Disconnect the battery cable. Pull out the battery.\n\n\
    [0:40] Remove two T6 screws, length 4 millimetres, from the bracket. Lift out the bracket.";

struct Api {
    client: Client,
    database: String,
}

impl Api {
    async fn start() -> Self {
        Self::on(paso_cluster::test_database()).await
    }

    /// A server before a database; a second one is what a restart looks like.
    async fn on(database: String) -> Self {
        let store = serve::open(&database).await.expect("a database");
        let client = Client::untracked(serve::rocket(store, 0, &["paso.example".to_owned()])).await.expect("a server");
        Self { client, database }
    }

    async fn restarted(&self) -> Self {
        Self::on(self.database.clone()).await
    }

    async fn get(&self, path: &str) -> (Status, Value) {
        read(self.client.get(path.to_owned()).header(author("Ann")).dispatch().await).await
    }

    async fn post(&self, who: &str, path: &str, body: Value) -> (Status, Value) {
        let request = self.client.post(path.to_owned()).header(author(who)).header(rocket::http::ContentType::JSON);
        read(request.body(body.to_string()).dispatch().await).await
    }

    async fn kettle(&self) -> String {
        let (status, info) = read(
            self.client.post("/api/recordings?name=kettle.md").header(author("Ann")).body(KETTLE).dispatch().await,
        )
        .await;
        assert_eq!(status, Status::Created, "{info}");
        let (status, made) = self
            .post("Ann", "/api/manuals", json!({"title": "Kettle", "device": "K1", "recordings": [info["id"]]}))
            .await;
        assert_eq!(status, Status::Created, "{made}");
        made["id"].as_str().unwrap().to_owned()
    }

    async fn view(&self, id: &str) -> Value {
        self.get(&format!("/api/manuals/{id}")).await.1
    }

    async fn edit(&self, who: &str, id: &str, base_seq: i64, edit: Value) -> (Status, Value) {
        let body = json!({"id": Uuid::now_v7(), "base_seq": base_seq, "edit": edit});
        self.post(who, &format!("/api/manuals/{id}/edits"), body).await
    }
}

async fn read(response: LocalResponse<'_>) -> (Status, Value) {
    let status = response.status();
    let text = response.into_string().await.unwrap_or_default();
    (status, serde_json::from_str(&text).unwrap_or(Value::String(text)))
}

fn author(name: &str) -> Header<'static> {
    Header::new("Paso-Author", name.to_owned())
}

fn title(id: &Value, text: &str) -> Value {
    json!({"step": {"set": {"id": id, "field": {"title": text}}}})
}

fn reviewed(id: &Value) -> Value {
    json!({"step": {"set": {"id": id, "field": {"reviewed": true}}}})
}

#[rocket::async_test]
async fn a_recording_becomes_a_drafted_manual() {
    let api = Api::start().await;
    let view = api.view(&api.kettle().await).await;
    assert_eq!(view["order"].as_array().unwrap().len(), 3);
    assert_eq!((view["seq"].as_i64(), view["can_undo"].as_bool()), (Some(0), Some(false)));
    let listen = api.get(&format!("/api/manuals/{}/listen", view["manual"]["id"].as_str().unwrap())).await.1;
    let heard = listen[0]["heard"]["statements"].as_array().unwrap();
    assert!(heard.iter().all(|h| !h["statement"]["because"].as_array().unwrap().is_empty()));
    assert!(heard.iter().any(|h| h["step"].is_string()));
}

#[rocket::async_test]
async fn undo_and_redo_survive_a_restart() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let step = api.view(&id).await["order"][0].clone();
    let before = api.view(&id).await["manual"]["steps"][step.as_str().unwrap()]["title"].clone();
    let (status, applied) = api.edit("Ann", &id, 0, title(&step, "Open it")).await;
    assert_eq!((status, applied["seq"].as_i64()), (Status::Ok, Some(1)), "{applied}");

    let again = api.restarted().await;
    let now = |v: &Value| v["manual"]["steps"][step.as_str().unwrap()]["title"].clone();
    let (status, undone) = again.post("Ann", &format!("/api/manuals/{id}/undo"), json!({})).await;
    assert_eq!(status, Status::Ok, "{undone}");
    assert_eq!((now(&again.view(&id).await), undone["can_redo"].as_bool()), (before, Some(true)));

    let third = again.restarted().await;
    assert_eq!(third.post("Ann", &format!("/api/manuals/{id}/redo"), json!({})).await.0, Status::Ok);
    assert_eq!(now(&third.view(&id).await), json!("Open it"));
    let (status, nothing) = third.post("Bob", &format!("/api/manuals/{id}/undo"), json!({})).await;
    assert_eq!((status, nothing["detail"].as_str()), (Status::Conflict, Some("There is nothing to undo.")));
}

#[rocket::async_test]
async fn a_stale_edit_of_another_field_is_applied_and_brings_what_was_missed() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let step = api.view(&id).await["order"][0].clone();
    api.edit("Ann", &id, 0, title(&step, "Ann's title")).await;
    let (status, applied) = api.edit("Bob", &id, 0, reviewed(&step)).await;
    assert_eq!(status, Status::Ok, "{applied}");
    let fields: Vec<&str> =
        applied["change"]["images"].as_array().unwrap().iter().filter_map(|i| i["place"]["field"].as_str()).collect();
    assert_eq!(fields, ["title", "reviewed"]);
}

#[rocket::async_test]
async fn a_stale_edit_of_the_same_field_is_answered_with_both_versions() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let step = api.view(&id).await["order"][0].clone();
    api.edit("Ann", &id, 0, title(&step, "Ann's title")).await;
    let (status, problem) = api.edit("Bob", &id, 0, title(&step, "Bob's title")).await;
    assert_eq!((status, problem["type"].as_str()), (Status::Conflict, Some("urn:paso:problem:clash")));
    let clash = &problem["clash"];
    assert_eq!((&clash["theirs"][0]["value"], &clash["theirs"][0]["author"]), (&json!("Ann's title"), &json!("Ann")));
    assert_eq!(clash["mine"], title(&step, "Bob's title"));
    // Insisting on the newest base goes through; nothing typed was lost.
    assert_eq!(api.edit("Bob", &id, clash["seq"].as_i64().unwrap(), title(&step, "Bob's title")).await.0, Status::Ok);
}

#[rocket::async_test]
async fn an_edit_of_what_somebody_removed_is_a_clash() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let step = api.view(&id).await["order"][0].clone();
    api.edit("Ann", &id, 0, json!({"step": {"remove": {"id": step}}})).await;
    let (status, problem) = api.edit("Bob", &id, 0, title(&step, "Bob's title")).await;
    assert_eq!((status, problem["clash"]["theirs"][0]["value"].clone()), (Status::Conflict, Value::Null));
    assert!(problem["detail"].as_str().unwrap().starts_with("Ann changed the same"), "{problem}");
}

#[rocket::async_test]
async fn undo_never_sweeps_away_what_somebody_else_did() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let step = api.view(&id).await["order"][0].clone();
    api.edit("Ann", &id, 0, title(&step, "Ann's title")).await;
    api.edit("Bob", &id, 1, title(&step, "Bob's title")).await;
    let (status, problem) = api.post("Ann", &format!("/api/manuals/{id}/undo"), json!({})).await;
    assert_eq!((status, &problem["clash"]["theirs"][0]["author"]), (Status::Conflict, &json!("Bob")));
}

#[rocket::async_test]
async fn the_same_edit_sent_twice_is_applied_once() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let step = api.view(&id).await["order"][0].clone();
    let body = json!({"id": Uuid::now_v7(), "base_seq": 0, "edit": title(&step, "Once")});
    let first = api.post("Ann", &format!("/api/manuals/{id}/edits"), body.clone()).await;
    let second = api.post("Ann", &format!("/api/manuals/{id}/edits"), body).await;
    assert_eq!((first.0, second.0), (Status::Ok, Status::Ok), "{}", second.1);
    assert_eq!((&second.1["seq"], &second.1["change"]["images"][0]["after"]), (&json!(1), &json!("Once")));
}

#[rocket::async_test]
async fn a_manual_loads_from_its_snapshot_and_the_edits_behind_it() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let step = api.view(&id).await["order"][1].clone();
    for n in 0..120 {
        let (status, answer) = api.edit("Ann", &id, n, title(&step, &format!("Title {n}"))).await;
        assert_eq!(status, Status::Ok, "{answer}");
    }
    let (live, loaded) = (api.view(&id).await, api.restarted().await.view(&id).await);
    assert_eq!(live, loaded);
    assert_eq!(loaded["manual"]["steps"][step.as_str().unwrap()]["title"], "Title 119");
    let history = api.get(&format!("/api/manuals/{id}/history")).await.1;
    assert_eq!((history[0]["seq"].as_i64(), history[0]["author"].as_str()), (Some(120), Some("Ann")));
}

#[rocket::async_test]
async fn the_shelf_finds_archives_deletes_and_brings_back() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let count = async |query: &str| api.get(&format!("/api/manuals{query}")).await.1.as_array().unwrap().len();
    assert_eq!(
        (count("?find=kettle+bracket").await, count("?find=100%25").await, count("?find=toaster").await),
        (1, 0, 0)
    );
    let patch = api.client.patch(format!("/api/manuals/{id}")).header(rocket::http::ContentType::JSON);
    assert_eq!(patch.body(r#"{"archived": true}"#).dispatch().await.status(), Status::NoContent);
    assert_eq!((count("").await, count("?archived=true").await), (0, 1));
    assert_eq!(
        api.client.delete(format!("/api/manuals/{id}")).header(author("Ann")).dispatch().await.status(),
        Status::NoContent
    );
    assert_eq!((count("?archived=true").await, api.get(&format!("/api/manuals/{id}")).await.0), (0, Status::NotFound));
    assert_eq!(api.post("Ann", &format!("/api/manuals/{id}/restore"), json!({})).await.0, Status::NoContent);
    assert_eq!(count("?archived=true").await, 1);
}

#[rocket::async_test]
async fn a_published_revision_never_shifts_under_its_readers() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let view = api.view(&id).await;
    let group = view["manual"]["fasteners"].as_object().unwrap().keys().next().unwrap().clone();
    let set = |count: Value| json!({"fastener": {"set": {"id": group, "field": {"refitted": count}}}});
    api.edit("Ann", &id, 0, set(json!(1))).await;
    let (status, problem) = api.post("Ann", &format!("/api/manuals/{id}/revisions"), json!({})).await;
    assert_eq!(status, Status::Conflict);
    assert!(problem["detail"].as_str().unwrap().contains("left over"), "{problem}");

    api.edit("Ann", &id, 1, set(Value::Null)).await;
    let (status, revision) = api.post("Ann", &format!("/api/manuals/{id}/revisions"), json!({})).await;
    assert_eq!((status, &revision["number"]), (Status::Created, &json!(1)));
    api.edit("Ann", &id, 2, title(&view["order"][0], "Changed after publishing")).await;
    let path = format!("/api/manuals/{id}/revisions/1");
    let published = api.client.get(path).dispatch().await.into_string().await.unwrap();
    assert!(!published.contains("Changed after publishing"));
    let now = api.client.get(format!("/api/manuals/{id}/guide.md")).dispatch().await.into_string().await.unwrap();
    assert!(now.contains("Changed after publishing"));
}

#[rocket::async_test]
async fn twelve_presses_make_one_revision() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let view = api.view(&id).await;
    let path = format!("/api/manuals/{id}/revisions");
    let presses = rocket::futures::future::join_all((0..12).map(|_| api.post("Ann", &path, json!({})))).await;
    assert!(presses.iter().all(|(status, made)| *status == Status::Created && made["number"] == 1), "{presses:?}");
    assert_eq!(api.get(&path).await.1.as_array().unwrap().len(), 1);
    // What changed since is another one.
    api.edit("Ann", &id, 0, title(&view["order"][0], "Another title")).await;
    assert_eq!(api.post("Ann", &path, json!({})).await.1["number"], 2);
}

#[rocket::async_test]
async fn a_manual_goes_out_as_json_and_comes_back() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let (_, manual) = api.get(&format!("/api/manuals/{id}/manual.json")).await;
    let (status, made) = api.post("Ann", "/api/manuals/import", manual.clone()).await;
    assert_eq!(status, Status::Created, "{made}");
    let copy = api.view(made["id"].as_str().unwrap()).await;
    assert_ne!(copy["manual"]["id"], manual["id"]);
    assert_eq!(copy["manual"]["steps"], manual["steps"]);
}

#[rstest]
#[case::broken("not json", 422, "not of the expected shape")]
#[case::shape(r#"{"id": "x"}"#, 422, "not of the expected shape")]
#[case::ahead(
    r#"{"id": "01890000-0000-7000-8000-000000000001", "base_seq": 99, "edit": {"head": {"title": "x"}}}"#,
    422,
    "ahead of the newest edit 0"
)]
#[case::empty(
    r#"{"id": "01890000-0000-7000-8000-000000000001", "base_seq": 0, "edit": {"head": {"title": " "}}}"#,
    422,
    "Nothing is written here"
)]
#[case::zero(
    r#"{"id": "01890000-0000-7000-8000-000000000001", "base_seq": 0, "edit": {"head": {"title": "a\u0000"}}}"#,
    422,
    "control character"
)]
#[tokio::test(flavor = "multi_thread")]
async fn bad_edits_are_refused_in_a_sentence(#[case] body: &str, #[case] status: u16, #[case] says: &str) {
    let api = Api::start().await;
    let id = api.kettle().await;
    let request =
        api.client.post(format!("/api/manuals/{id}/edits")).header(rocket::http::ContentType::JSON).body(body);
    let response = request.dispatch().await;
    assert_eq!(response.content_type().unwrap().to_string(), "application/problem+json");
    let (got, problem) = read(response).await;
    assert_eq!(got.code, status, "{problem}");
    assert!(problem["detail"].as_str().unwrap().contains(says), "{problem}");
}

#[rstest]
#[case("/api/recordings?name=x", "[1:75] a", 422, "Line 1: “[1:75]” is not a time")]
#[case("/api/recordings?name=x", "", 422, "holds no speech")]
#[case("/api/recordings?name=x%00", "hello", 422, "zero character")]
#[case("/api/manuals/import", "{}", 422, "no “format” number")]
#[case("/api/manuals", r#"{"title": "a\u0093b"}"#, 422, "the control character U+0093")]
#[case("/api/manuals", r#"{"title": " "}"#, 422, "Nothing is written here")]
#[case("/api/nowhere", "", 404, "Nothing answers POST")]
#[tokio::test(flavor = "multi_thread")]
async fn bad_requests_are_refused_in_a_sentence(
    #[case] path: &str,
    #[case] body: &str,
    #[case] status: u16,
    #[case] says: &str,
) {
    let api = Api::start().await;
    let (got, problem) = read(
        api.client
            .post(path.to_owned())
            .header(author("Ann"))
            .header(rocket::http::ContentType::JSON)
            .body(body)
            .dispatch()
            .await,
    )
    .await;
    assert_eq!(got.code, status, "{problem}");
    assert!(problem["detail"].as_str().unwrap().contains(says), "{problem}");
}

#[rocket::async_test]
async fn an_upload_is_cut_off_at_the_limit() {
    let api = Api::start().await;
    let (status, problem) = read(
        api.client.post("/api/recordings?name=x").header(author("Ann")).body("a".repeat(2_100_000)).dispatch().await,
    )
    .await;
    assert_eq!(status, Status::PayloadTooLarge);
    assert!(problem["detail"].as_str().unwrap().contains("larger than 2 MB, the most that is taken here"), "{problem}");
}

#[rstest]
#[case("/api/manuals?archived=maybe", 422)]
#[case("/api/manuals/01890000-0000-7000-8000-000000000000", 404)]
#[case("/api/manuals/not-an-id", 404)]
#[case("/assets/none.js", 404)]
#[case("/api/none", 404)]
#[tokio::test(flavor = "multi_thread")]
async fn unknown_things_are_problems_too(#[case] path: &str, #[case] status: u16) {
    let api = Api::start().await;
    let (got, problem) = api.get(path).await;
    assert_eq!((got.code, problem["status"].as_u64()), (status, Some(u64::from(status))), "{problem}");
}

#[rocket::async_test]
async fn the_page_is_fresh_and_guarded_and_its_assets_last_for_ever() {
    let api = Api::start().await;
    let page = api.client.get("/manuals/x/steps").dispatch().await;
    let header = |r: &LocalResponse<'_>, name: &str| r.headers().get_one(name).unwrap_or_default().to_owned();
    let policy = header(&page, "Content-Security-Policy");
    assert!(policy.contains("default-src 'none'") && !policy.contains("unsafe"), "{policy}");
    assert_eq!(header(&page, "Cache-Control"), "no-store");
    assert_eq!(header(&page, "X-Content-Type-Options"), "nosniff");
    let html = page.into_string().await.unwrap();
    let nonce = policy.split("'nonce-").nth(1).unwrap().split('\'').next().unwrap();
    assert!(html.contains(nonce), "the page carries the nonce of its policy");
    let script = html.split("src=\"").nth(1).unwrap().split('"').next().unwrap();
    let asset = api.client.get(script.to_owned()).header(Header::new("Accept-Encoding", "gzip, br")).dispatch().await;
    assert_eq!(header(&asset, "Content-Encoding"), "gzip");
    assert_eq!(header(&asset, "Cache-Control"), "public, max-age=31536000, immutable");
}

#[rocket::async_test]
async fn health_says_whether_the_database_answers() {
    let api = Api::start().await;
    let (status, health) = api.get("/api/health").await;
    assert_eq!((status, health["database"].as_bool()), (Status::Ok, Some(true)));
}

#[rocket::async_test]
async fn the_demo_shows_real_content_at_every_stop() {
    let store = serve::open(&paso_cluster::test_database()).await.unwrap();
    paso_server::demo::load_once(&store).await.unwrap();
    paso_server::demo::load_once(&store).await.unwrap();
    let shelf = store.shelf("", false).await.unwrap();
    assert_eq!(shelf.len(), 4, "loaded once");
    for row in shelf {
        let (_, manual) = store.manual(row.id).await.unwrap();
        let guide = paso_core::publish::guide(&manual);
        let steps = || {
            guide
                .sections
                .iter()
                .flat_map(|s| &s.blocks)
                .filter_map(|b| if let Block::Step(s) = b { Some(s) } else { None })
        };
        let cautioned = steps().any(|s| s.lines.iter().any(|l| l.kind == LineKind::Caution));
        assert!(steps().count() >= 12 && cautioned, "{}", row.title);
        assert!(guide.fold.balance.rows.len() >= 2 && !guide.fold.rebuild.is_empty(), "{}", row.title);
        let chain = paso_core::stops::chain::view(&manual);
        let found = paso_core::checks::findings(&manual);
        let order = |f: &&paso_core::finding::Finding| f.stop == Stop::Chain;
        assert!(chain.conditions.len() >= 5 && found.iter().filter(order).all(|f| !f.blocks), "{}", row.title);
        if row.title.contains("scale") {
            assert_eq!(guide.fold.balance.left_over, 1, "the screw that stays on the bench");
        }
        if row.title.contains("weather") {
            let jobs = paso_core::order::jobs(&manual);
            assert!(jobs.len() == 5 && jobs.iter().all(|j| j.route.is_some() && j.shared > 0), "{jobs:#?}");
            assert!(chain.conditions.iter().any(|c| c.ways.len() == 2) && manual.variants.len() == 2);
        }
    }
}

#[rocket::async_test]
async fn the_chain_is_told_and_what_is_wrong_with_a_question_is_said() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let (status, chain) = api.get(&format!("/api/manuals/{id}/chain")).await;
    assert_eq!((status, chain["steps"].as_array().is_some_and(|s| !s.is_empty())), (Status::Ok, true));
    let part = chain["parts"][0]["part"].as_str().unwrap().to_owned();
    let (_, routes) = api.get(&format!("/api/manuals/{id}/chain/routes?targets={part}")).await;
    assert!(routes[0]["proven"].as_bool().unwrap(), "{routes}");
    let step = chain["steps"][0]["step"].as_str().unwrap().to_owned();
    let (_, spots) = api.get(&format!("/api/manuals/{id}/chain/spots/{step}")).await;
    assert_eq!(spots.as_array().unwrap().len(), chain["steps"].as_array().unwrap().len());
    for (path, wanted, says) in [
        ("chain/routes?targets=", Status::UnprocessableEntity, "Name 1 to 40 parts"),
        ("chain/routes?targets=lid", Status::UnprocessableEntity, "“lid” is no part of this manual"),
        ("chain/spots/01890000-0000-7000-8000-000000000000", Status::NotFound, "step in this teardown"),
        ("guide?job=01890000-0000-7000-8000-000000000000", Status::NotFound, "job in this manual"),
    ] {
        let (status, problem) = api.get(&format!("/api/manuals/{id}/{path}")).await;
        assert_eq!(status, wanted, "{path}: {problem}");
        assert!(problem["detail"].as_str().unwrap().contains(says), "{problem}");
    }
}

#[rocket::async_test]
async fn the_device_is_told_as_tables_and_words_are_found() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let (_, steps) = api.get(&format!("/api/manuals/{id}/steps")).await;
    let plate = steps["parts"].as_array().unwrap().iter().find(|p| p["fixed_by"] == json!(["4 × PH1, 8 mm"]));
    assert!(plate.is_some(), "{steps}");
    let (status, hits) = api.get(&format!("/api/manuals/{id}/find?find=BRACKET&whole_words=true")).await;
    let what: Vec<&str> = hits.as_array().unwrap().iter().filter_map(|h| h["what"].as_str()).collect();
    assert_eq!((status, what), (Status::Ok, vec!["title", "sentence", "sentence", "part"]));
    let (status, refused) = api.get(&format!("/api/manuals/{id}/find?find=")).await;
    assert_eq!((status, refused["field"].as_str()), (Status::UnprocessableEntity, Some("find")), "{refused}");
}

/// What does not fit is one list; who says why one does not matter sets it aside, until its facts change.
#[rocket::async_test]
async fn a_finding_is_set_aside_with_a_reason_and_comes_back_with_other_facts() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let path = format!("/api/manuals/{id}/findings");
    let of_rule = async |rule: &str| {
        let (status, view) = api.get(&path).await;
        assert_eq!(status, Status::Ok, "{view}");
        let found = view["findings"].as_array().unwrap().iter().find(|f| f["rule"] == rule).cloned();
        (found, view["blocking"].clone())
    };
    let (finding, _) = of_rule("not-reviewed").await;
    let finding = finding.expect("nobody has reviewed the draft");
    let aside =
        json!({"finding": {"set_aside": {"id": finding["key"], "rule": finding["rule"], "because": "a first draft"}}});
    assert_eq!(api.edit("Ann", &id, 0, aside).await.0, Status::Ok);
    let (again, _) = of_rule("not-reviewed").await;
    assert_eq!(again.unwrap()["set_aside"], "a first draft");
    // One step more was looked at: that is another finding, of which nobody has said anything.
    let step = api.view(&id).await["order"][0].clone();
    let seq = api.view(&id).await["seq"].as_i64().unwrap();
    assert_eq!(
        api.edit("Ann", &id, seq, json!({"step": {"set": {"id": step, "field": {"reviewed": true}}}})).await.0,
        Status::Ok
    );
    assert_eq!(of_rule("not-reviewed").await.0.unwrap()["set_aside"], Value::Null);

    let blank = json!({"finding": {"set_aside": {"id": finding["key"], "rule": "ring", "because": " "}}});
    let (status, refused) = api.edit("Ann", &id, seq + 1, blank).await;
    assert_eq!((status, refused["field"].as_str()), (Status::UnprocessableEntity, Some("because")), "{refused}");
}

#[rocket::async_test]
async fn a_statement_is_made_a_step_and_words_are_found_where_they_were_heard() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let listen = api.get(&format!("/api/manuals/{id}/listen")).await.1;
    let recording = listen[0]["id"].as_str().unwrap();
    let statement = &listen[0]["heard"]["statements"][0]["statement"];
    let from = format!("/api/manuals/{id}/recordings/{recording}/statements/{}/step", statement["start"]);
    let made = api.get(&from).await.1;
    let seq = api.view(&id).await["seq"].as_i64().unwrap();
    assert_eq!(api.edit("Ann", &id, seq, made["edit"].clone()).await.0, Status::Ok);
    assert!(api.view(&id).await["order"].as_array().unwrap().contains(&made["step"]));
    let nothing = format!("/api/manuals/{id}/recordings/{recording}/statements/999999/step");
    assert_eq!(api.get(&nothing).await.0, Status::NotFound);

    let word = statement["text"].as_str().unwrap().split(' ').next().unwrap().to_uppercase();
    let places = api.get(&format!("/api/manuals/{id}/heard?find={word}")).await.1;
    assert_eq!(places[0]["start"], statement["start"], "{places}");
    assert_eq!(api.get(&format!("/api/manuals/{id}/heard?find=")).await.1, json!([]));
}

#[rocket::async_test]
async fn long_answers_are_packed_for_who_takes_them_so() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let path = format!("/api/manuals/{id}/listen");
    let plain = api.client.get(&path).dispatch().await;
    assert_eq!(
        (plain.headers().get_one("Content-Encoding"), plain.headers().get_one("Vary")),
        (None, Some("Accept-Encoding"))
    );
    let plain = plain.into_bytes().await.unwrap();
    let packed = api.client.get(&path).header(Header::new("Accept-Encoding", "br, gzip")).dispatch().await;
    assert_eq!(packed.headers().get_one("Content-Encoding"), Some("gzip"));
    let packed = packed.into_bytes().await.unwrap();
    assert!(packed.len() * 3 < plain.len(), "{} of {}", packed.len(), plain.len());
    let mut unpacked = Vec::new();
    std::io::Read::read_to_end(&mut flate2::read::GzDecoder::new(packed.as_slice()), &mut unpacked).unwrap();
    assert_eq!(unpacked, plain);
}

/// The checked-in files feed the front end: `scripts/client` makes them anew.
#[test]
fn what_the_front_end_takes_from_the_core_is_fresh() {
    let kept = include_str!("../../web/src/api/tables.ts");
    assert!(kept == paso_server::client::tables(), "web/src/api/tables.ts is stale: run scripts/client");
}

#[test]
fn the_openapi_document_is_fresh() {
    let kept = include_str!("../../web/openapi.json");
    assert!(kept == paso_server::api::document(), "web/openapi.json is stale: run scripts/client");
}

#[tokio::test(flavor = "multi_thread", worker_threads = 4)]
async fn many_authors_at_one_time_lose_nothing() {
    let api = std::sync::Arc::new(Api::start().await);
    let id = api.kettle().await;
    let order: Vec<Value> = api.view(&id).await["order"].as_array().unwrap().clone();
    let authors = (0..24).map(|n| {
        let (api, id, step) = (api.clone(), id.clone(), order[n % order.len()].clone());
        tokio::spawn(async move {
            let note = json!({"step": {"add": {"id": Uuid::now_v7(), "phase": "teardown", "after": step, "title": format!("Step of author {n}")}}});
            api.edit(&format!("Author {n}"), &id, 0, note).await
        })
    });
    for author in authors.collect::<Vec<_>>() {
        let (status, answer) = author.await.unwrap();
        assert_eq!(status, Status::Ok, "{answer}");
    }
    let view = api.view(&id).await;
    assert_eq!((view["seq"].as_i64(), view["order"].as_array().unwrap().len()), (Some(24), order.len() + 24));
    let history = api.get(&format!("/api/manuals/{id}/history")).await.1;
    let seqs: Vec<i64> = history.as_array().unwrap().iter().filter_map(|e| e["seq"].as_i64()).collect();
    assert_eq!(seqs, (1..=24).rev().collect::<Vec<_>>(), "numbers without gaps");
}

#[rocket::async_test]
async fn two_servers_before_one_database_agree() {
    let one = Api::start().await;
    let id = one.kettle().await;
    let two = one.restarted().await;
    let step = one.view(&id).await["order"][0].clone();
    for n in 0..6 {
        let server = if n % 2 == 0 { &one } else { &two };
        assert_eq!(server.edit("Ann", &id, n, title(&step, &format!("Title {n}"))).await.0, Status::Ok);
    }
    assert_eq!(one.view(&id).await, two.view(&id).await, "neither trusts a stale cache");
}

#[rstest]
#[case("vtt", "text/vtt", "WEBVTT")]
#[case("srt", "application/x-subrip", "1\n00:00:00,000 --> 00:00:20,000\n")]
#[tokio::test(flavor = "multi_thread")]
async fn a_recording_goes_out_as_captions(#[case] format: &str, #[case] kind: &str, #[case] begins: &str) {
    let api = Api::start().await;
    let view = api.view(&api.kettle().await).await;
    let recording = view["manual"]["recordings"].as_object().unwrap().keys().next().unwrap().clone();
    let response = api.client.get(format!("/api/recordings/{recording}/captions?format={format}")).dispatch().await;
    assert_eq!(response.content_type().unwrap().to_string(), kind);
    let text = response.into_string().await.unwrap();
    assert!(text.starts_with(begins), "{text}");
    // What went out can be brought again and says the same.
    let (status, again) =
        read(api.client.post("/api/recordings?name=again").header(author("Ann")).body(text).dispatch().await).await;
    assert_eq!((status, &again["segments"]), (Status::Created, &json!(3)));
    let (status, problem) = api.get(&format!("/api/recordings/{recording}/captions?format=doc")).await;
    assert_eq!((status.code, problem["detail"].as_str()), (422, Some("The format is vtt or srt.")));
}

#[rocket::async_test]
async fn a_correction_shows_at_listen_and_can_be_undone() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let path = format!("/api/manuals/{id}/listen");
    let listen = api.get(&path).await.1;
    let first = listen[0]["heard"]["statements"][0].clone();
    let (start, end) = (&first["statement"]["start"], &first["statement"]["end"]);
    let edit = json!({"reading": {"change_kind": {"id": Uuid::now_v7(), "recording": listen[0]["id"], "start": start, "end": end, "kind": "noise"}}});
    let (status, answer) = api.edit("Ann", &id, 0, edit).await;
    assert_eq!(status, Status::Ok, "{answer}");
    let now = api.get(&path).await.1[0]["heard"]["statements"][0].clone();
    assert_eq!(
        (&now["kind"], &now["corrected"], &now["statement"]),
        (&json!("noise"), &json!(true), &first["statement"])
    );
    api.post("Ann", &format!("/api/manuals/{id}/undo"), json!({})).await;
    assert_eq!(api.get(&path).await.1[0]["heard"]["statements"][0], first);
}

#[rocket::async_test]
async fn a_word_put_right_once_is_offered_in_the_next_manual_and_no_longer_when_taken_back() {
    let api = Api::start().await;
    let drafted = async |name: &str, text: &'static str| {
        let path = format!("/api/recordings?name={name}.md");
        let info = read(api.client.post(path).header(author("Ann")).body(text).dispatch().await).await.1;
        let body = json!({"title": name, "device": "K1", "recordings": [info["id"]]});
        let made = api.post("Ann", "/api/manuals", body).await.1;
        (made["id"].as_str().unwrap().to_owned(), info["id"].clone())
    };
    let offers = async |id: &str| {
        let view = api.get(&format!("/api/manuals/{id}/findings")).await.1;
        let rows = view["findings"].as_array().unwrap().clone();
        rows.into_iter().filter(|f| f["rule"] == "house-word").collect::<Vec<_>>()
    };
    let (first, recording) = drafted("Lamp", "[00:01] Take off the strabel.\n\n[00:09] Remove the lid.").await;
    let (second, _) = drafted("Kettle", "[00:01] Pull the strabel out.\n\n[00:09] Lay the Strabel on the mat.").await;
    assert_eq!(offers(&second).await, Vec::<Value>::new());

    let word = json!({"id": Uuid::now_v7(), "recording": recording, "start": 13, "end": 20, "heard": "strabel", "meant": "strap"});
    let (status, answer) = api.edit("Ann", &first, 0, json!({"reading": {"word": word}})).await;
    assert_eq!(status, Status::Ok, "{answer}");
    let offered = offers(&second).await;
    assert_eq!(offered.len(), 1);
    assert_eq!(offered[0]["says"], "“strabel” was put right to “strap” in “Lamp”; here it is heard several times.");
    assert_eq!(offers(&first).await, Vec::<Value>::new(), "where it was put right nothing is offered");

    api.post("Ann", &format!("/api/manuals/{first}/undo"), json!({})).await;
    assert_eq!(offers(&second).await, Vec::<Value>::new());
    api.post("Ann", &format!("/api/manuals/{first}/redo"), json!({})).await;
    let fix = offers(&second).await[0]["fixes"][0]["edit"].clone();
    let (status, answer) = api.edit("Bob", &second, 0, fix).await;
    assert_eq!(status, Status::Ok, "{answer}");
    assert_eq!(offers(&second).await, Vec::<Value>::new());
    let heard = api.get(&format!("/api/manuals/{second}/listen")).await.1[0]["heard"]["statements"].to_string();
    assert!(heard.contains("strap") && !heard.contains("\"what\":\"strabel\""), "{heard}");
}

#[rocket::async_test]
async fn an_edit_that_changes_nothing_is_no_entry_of_the_history() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let view = api.view(&id).await;
    let step = &view["order"][0];
    let same = view["manual"]["steps"][step.as_str().unwrap()]["title"].as_str().unwrap();
    let (status, applied) = api.edit("Ann", &id, 0, title(step, same)).await;
    assert_eq!((status, &applied["seq"], &applied["can_undo"]), (Status::Ok, &json!(0), &json!(false)));
}

#[rocket::async_test]
async fn what_an_author_types_is_kept_letter_for_letter() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let step = api.view(&id).await["order"][0].clone();
    let typed = "Ä “quoted” <b>title</b> 漢字 🔧 '; DROP TABLE manuals; --";
    api.edit("J%C3%BCrgen", &id, 0, title(&step, typed)).await;
    let loaded = api.restarted().await.view(&id).await;
    assert_eq!(loaded["manual"]["steps"][step.as_str().unwrap()]["title"], typed);
    let history = api.get(&format!("/api/manuals/{id}/history")).await.1;
    assert_eq!(history[0]["author"], "Jürgen");
}

/// The document lists every route and no other; both are written by hand, so a test compares them.
#[rocket::async_test]
async fn the_document_and_the_routes_agree() {
    let api = Api::start().await;
    let mut served: Vec<String> = api
        .client
        .rocket()
        .routes()
        .filter(|r| r.uri.origin.path().starts_with("/api") && r.uri.origin.path() != "/api/openapi.json")
        .map(|r| {
            format!(
                "{} {}",
                r.method.as_str().to_lowercase(),
                r.uri.origin.path().as_str().replace('<', "{").replace('>', "}")
            )
        })
        .collect();
    let document: Value = serde_json::from_str(&paso_server::api::document()).unwrap();
    let mut told: Vec<String> = Vec::new();
    for (path, methods) in document["paths"].as_object().unwrap() {
        told.extend(methods.as_object().unwrap().keys().map(|m| format!("{m} {path}")));
    }
    served.sort();
    told.sort();
    assert_eq!(served, told);
    let operations = document["paths"].as_object().unwrap().values().flat_map(|m| m.as_object().unwrap().values());
    let mut names: Vec<&str> = operations.filter_map(|o| o["operationId"].as_str()).collect();
    names.sort();
    let all = names.len();
    names.dedup();
    assert_eq!(names.len(), all, "a client names its functions by these");
}

/// What a page of somebody else's, or a name that was bent to this machine, may send: nothing.
#[rstest]
#[case::rebound_name(&[("Host", "evil.example")], "does not go by the name “evil.example”")]
#[case::foreign_page(&[("Host", "localhost:8000"), ("Origin", "https://evil.example")], "A page of https://evil.example may not")]
#[case::sandboxed_page(&[("Host", "localhost:8000"), ("Origin", "null")], "A page of null may not")]
#[case::foreign_fetch(&[("Sec-Fetch-Site", "cross-site")], "Another page may not")]
#[case::sister_port(&[("Sec-Fetch-Site", "same-site")], "Another page may not")]
#[tokio::test(flavor = "multi_thread")]
async fn only_our_own_page_reads_and_writes(#[case] headers: &[(&'static str, &'static str)], #[case] says: &str) {
    let api = Api::start().await;
    for writes in [false, true] {
        let request = if writes { api.client.post("/api/manuals").body("{}") } else { api.client.get("/api/manuals") };
        let request = headers.iter().fold(request.header(rocket::http::ContentType::JSON), |r, (name, value)| {
            r.header(Header::new(*name, *value))
        });
        let (status, problem) = read(request.dispatch().await).await;
        assert_eq!(status, Status::Forbidden, "{problem}");
        assert!(problem["detail"].as_str().unwrap().contains(says), "{problem}");
    }
}

#[rstest]
#[case::own_page(&[("Host", "127.0.0.1:8000"), ("Origin", "http://127.0.0.1:8000"), ("Sec-Fetch-Site", "same-origin")])]
#[case::address_line(&[("Host", "LOCALHOST:8000"), ("Sec-Fetch-Site", "none")])]
#[case::ipv6(&[("Host", "[::1]:8000")])]
#[case::behind_a_proxy(&[("Host", "paso.example"), ("Origin", "https://paso.example")])]
#[tokio::test(flavor = "multi_thread")]
async fn our_own_page_is_let_in(#[case] headers: &[(&'static str, &'static str)]) {
    let api = Api::start().await;
    let request = headers.iter().fold(api.client.get("/api/manuals"), |r, (n, v)| r.header(Header::new(*n, *v)));
    assert_eq!(read(request.dispatch().await).await.0, Status::Ok);
}

/// A link on another page leads to Paso; what it could send from there changes nothing.
#[rocket::async_test]
async fn forms_and_plain_text_change_nothing() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let form = rocket::http::ContentType::Form;
    for (kind, body) in [(form, "_method=delete"), (rocket::http::ContentType::Plain, "{}")] {
        let post = api.client.post(format!("/api/manuals/{id}")).header(kind).body(body);
        let (status, problem) = read(post.dispatch().await).await;
        assert_eq!(status, Status::UnsupportedMediaType, "{problem}");
    }
    // Not even with our header: Rocket reads a method out of a form.
    let post = api.client.post(format!("/api/manuals/{id}")).header(rocket::http::ContentType::Form);
    let (status, _) = read(post.header(author("Ann")).body("_method=delete").dispatch().await).await;
    assert_eq!(status, Status::UnsupportedMediaType);
    assert_eq!(api.get(&format!("/api/manuals/{id}")).await.0, Status::Ok, "it is still there");
    let link = api.client.get("/").header(Header::new("Sec-Fetch-Site", "cross-site")).dispatch().await;
    assert_eq!(link.status(), Status::Ok);
}

/// The page by its file name is the page, with its policy and its nonce.
#[rocket::async_test]
async fn the_page_never_leaves_without_its_policy() {
    let api = Api::start().await;
    for path in ["/", "/index.html", "/manuals/x/steps"] {
        let page = api.client.get(path).dispatch().await;
        let policy = page.headers().get_one("Content-Security-Policy").unwrap_or_default().to_owned();
        assert!(policy.contains("script-src 'self'") && policy.contains("nonce-"), "{path}: {policy}");
        assert!(!page.into_string().await.unwrap().contains("__NONCE__"), "{path}");
    }
}

/// A request whose answer got lost is sent again; whatever it does is done once, and an id means one thing for ever.
#[rocket::async_test]
async fn every_write_sent_twice_is_done_once_and_an_id_means_one_thing() {
    let api = Api::start().await;
    let request = Uuid::now_v7();
    let bring = |id: Uuid, text: &'static str| {
        api.client.post(format!("/api/recordings?name=k.md&request={id}")).header(author("Ann")).body(text)
    };
    let upload = |text| bring(request, text);
    let first = read(upload(KETTLE).dispatch().await).await;
    assert_eq!(first.0, Status::Created, "{}", first.1);
    assert_eq!(first, read(upload(KETTLE).dispatch().await).await, "brought once");
    let (status, problem) = read(upload("Something else.").dispatch().await).await;
    assert_eq!((status, problem["type"].as_str()), (Status::Conflict, Some("urn:paso:problem:id-reused")), "{problem}");

    let new = |title: &str| json!({"id": request, "title": title, "device": "K1", "recordings": [request]});
    let made = api.post("Ann", "/api/manuals", new("Kettle")).await;
    assert_eq!(made, (Status::Created, json!({"id": request})));
    let id = request.to_string();
    let step = api.view(&id).await["order"][0].clone();
    api.edit("Ann", &id, 0, title(&step, "Open it")).await;
    assert_eq!(api.post("Ann", "/api/manuals", new("Kettle")).await, made, "made once, whatever it became since");
    assert_eq!(api.post("Ann", "/api/manuals", new("Lamp")).await.0, Status::Conflict);

    let again = json!({"id": request, "base_seq": 1, "edit": title(&step, "Lift it")});
    let edits = format!("/api/manuals/{id}/edits");
    assert_eq!(api.post("Ann", &edits, again.clone()).await.1["seq"], 2);
    assert_eq!(api.post("Ann", &edits, again.clone()).await.1["seq"], 2);
    let (status, problem) = api.post("Bob", &edits, again).await;
    assert_eq!(status, Status::Conflict, "{problem}");
    let other = json!({"id": request, "base_seq": 2, "edit": title(&step, "Drop it")});
    let (status, problem) = api.post("Ann", &edits, other).await;
    assert!(status == Status::Conflict && problem["detail"].as_str().unwrap().contains("was sent before"), "{problem}");

    let undo = format!("/api/manuals/{id}/undo?request={}", Uuid::now_v7());
    let undone = api.post("Ann", &undo, json!({})).await;
    assert_eq!(undone, api.post("Ann", &undo, json!({})).await);
    assert_eq!(api.view(&id).await["seq"], 3, "undone once");
    let redo = undo.replace("/undo", "/redo");
    assert_eq!(api.post("Ann", &redo, json!({})).await.0, Status::Conflict, "the id was an undo's");

    let second = Uuid::now_v7();
    read(bring(second, KETTLE).dispatch().await).await;
    let attach = json!({"id": Uuid::now_v7(), "base_seq": 3, "recording": second, "append": true});
    let recordings = format!("/api/manuals/{id}/recordings");
    let attached = api.post("Ann", &recordings, attach.clone()).await;
    assert_eq!((attached.0, attached.1["seq"].as_i64()), (Status::Ok, Some(4)), "{}", attached.1);
    let twice = api.post("Ann", &recordings, attach).await;
    assert_eq!((twice.0, twice.1["seq"].as_i64()), (Status::Ok, Some(4)), "{}", twice.1);
}

#[tokio::test(flavor = "multi_thread", worker_threads = 4)]
async fn one_manual_imported_many_times_at_once_is_many_manuals_and_no_outage() {
    let api = std::sync::Arc::new(Api::start().await);
    let id = api.kettle().await;
    let json = api.get(&format!("/api/manuals/{id}/manual.json")).await.1.to_string();
    let imports = (0..12).map(|_| {
        let (api, json) = (api.clone(), json.clone());
        tokio::spawn(async move {
            read(api.client.post("/api/manuals/import").header(author("Ann")).body(json).dispatch().await).await
        })
    });
    let mut ids = Vec::new();
    for import in imports.collect::<Vec<_>>() {
        let (status, made) = import.await.unwrap();
        assert_eq!(status, Status::Created, "{made}");
        ids.push(made["id"].to_string());
    }
    ids.sort();
    ids.dedup();
    assert_eq!(ids.len(), 12);
}

#[rstest]
#[case::beside(json!({"id": Uuid::nil(), "base_seq": 0, "edit": {"head": {"title": "x"}}, "force": true}), "“force”")]
#[case::inside(json!({"id": Uuid::nil(), "base_seq": 0, "edit": {"part": {"add": {"id": Uuid::nil(), "name": "x", "colour": 1}}}}), "colour")]
#[tokio::test(flavor = "multi_thread")]
async fn a_field_that_nobody_knows_is_refused_by_name(#[case] body: Value, #[case] says: &str) {
    let api = Api::start().await;
    let id = api.kettle().await;
    let (status, problem) = api.post("Ann", &format!("/api/manuals/{id}/edits"), body).await;
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(problem["detail"].as_str().unwrap().contains(says), "{problem}");
}

/// PostgreSQL's own codes, raised by a rule of the table as the real thing would be.
#[rstest]
#[case("53100", 507, "urn:paso:problem:disk-full")]
#[case("22021", 422, "urn:paso:problem:unstorable")]
#[case("57P03", 503, "urn:paso:problem:database")]
#[tokio::test(flavor = "multi_thread")]
async fn a_full_disk_bad_data_and_an_outage_are_told_apart(
    #[case] code: &str,
    #[case] status: u16,
    #[case] kind: &str,
) {
    let url = paso_cluster::test_database();
    let api = Api::on(url.clone()).await;
    let id = api.kettle().await;
    let rule = format!(
        "CREATE FUNCTION fails() RETURNS trigger AS $$ BEGIN RAISE EXCEPTION 'as if' USING ERRCODE = '{code}'; END $$ \
         LANGUAGE plpgsql; CREATE TRIGGER fails BEFORE INSERT ON manual_edits FOR EACH ROW EXECUTE FUNCTION fails();"
    );
    psql(&url, &rule);
    let (got, problem) = api.edit("Ann", &id, 0, json!({"head": {"title": "x"}})).await;
    assert_eq!((got.code, problem["type"].as_str()), (status, Some(kind)), "{problem}");
    assert_eq!(api.view(&id).await["seq"], 0, "nothing was changed");
}

/// Runs SQL on a test's database, as something else that went wrong would.
fn psql(url: &str, sql: &str) {
    let done = std::process::Command::new("psql").args(["-X", "-q", "-v", "ON_ERROR_STOP=1", "-c", sql, url]).status();
    assert!(done.expect("psql").success(), "{sql}");
}

#[rocket::async_test]
async fn what_was_deleted_can_be_brought_back_until_it_is_purged_and_then_says_so() {
    let url = paso_cluster::test_database();
    let api = Api::on(url.clone()).await;
    let id = api.kettle().await;
    let path = format!("/api/manuals/{id}");
    publish_anyway(&api, &url, &id).await;
    let delete = async || api.client.delete(path.clone()).header(author("Ann")).dispatch().await.status();
    assert_eq!(delete().await, Status::NoContent);
    let deleted = api.get("/api/deleted").await.1;
    assert_eq!((deleted[0]["id"].as_str(), deleted[0]["title"].as_str()), (Some(id.as_str()), Some("Kettle")));
    let store = serve::open(&url).await.unwrap();
    let days = |n| time::OffsetDateTime::now_utc() - time::Duration::days(n);
    assert_eq!(store.purge(days(30)).await.unwrap(), 0, "it waits its time");
    assert_eq!(api.post("Ann", &format!("{path}/restore"), json!({})).await.0, Status::NoContent);
    assert_eq!(api.get("/api/deleted").await.1, json!([]));

    assert_eq!(delete().await, Status::NoContent);
    psql(&url, "UPDATE manuals SET deleted_at = now() - interval '31 days'");
    assert_eq!(store.purge(days(30)).await.unwrap(), 1);
    for gone in [path.clone(), format!("{path}/revisions/1")] {
        let (status, problem) = api.get(&gone).await;
        assert_eq!((status, problem["type"].as_str()), (Status::Gone, Some("urn:paso:problem:purged")), "{problem}");
        assert!(problem["detail"].as_str().unwrap().contains("“Kettle” was deleted"), "{problem}");
    }
    assert_eq!(api.post("Ann", &format!("{path}/restore"), json!({})).await.0, Status::Gone);
}

/// Publishes the kettle as somebody who has settled all that blocks it.
async fn publish_anyway(api: &Api, url: &str, id: &str) {
    let manual = api.get(&format!("/api/manuals/{id}/manual.json")).await.1.to_string().replace('\'', "''");
    psql(
        url,
        &format!(
            "INSERT INTO guide_revisions (manual_id, number, author, at, seq, markdown, manual, rules) \
             VALUES ('{id}', 1, 'Ann', now(), 0, '# Kettle', '{manual}', '0.1.0')"
        ),
    );
}

#[rocket::async_test]
async fn a_recording_goes_only_where_no_manual_was_made_from_it() {
    let url = paso_cluster::test_database();
    let api = Api::on(url.clone()).await;
    let id = api.kettle().await;
    let bring = api.client.post("/api/recordings?name=spare.md").header(author("Ann")).body(KETTLE);
    let spare = read(bring.dispatch().await).await.1["id"].as_str().unwrap().to_owned();
    let listed = api.get("/api/recordings").await.1;
    let used: Vec<(bool, i64)> = listed
        .as_array()
        .unwrap()
        .iter()
        .map(|r| (r["used"].as_bool().unwrap(), r["bytes"].as_i64().unwrap()))
        .collect();
    assert_eq!(used, [(false, KETTLE.len() as i64), (true, KETTLE.len() as i64)]);
    let delete = async |id: &str| {
        read(api.client.delete(format!("/api/recordings/{id}")).header(author("Ann")).dispatch().await).await
    };
    // Attached and undone again: a redo would bring it back.
    let attach = json!({"id": Uuid::now_v7(), "base_seq": 0, "recording": spare, "append": false});
    assert_eq!(api.post("Ann", &format!("/api/manuals/{id}/recordings"), attach).await.0, Status::Ok);
    assert_eq!(api.post("Ann", &format!("/api/manuals/{id}/undo"), json!({})).await.0, Status::Ok);
    let (status, problem) = delete(&spare).await;
    assert_eq!((status, problem["type"].as_str()), (Status::Conflict, Some("urn:paso:problem:in-use")), "{problem}");
    api.client.delete(format!("/api/manuals/{id}")).header(author("Ann")).dispatch().await;
    assert_eq!(delete(&spare).await.0, Status::Conflict, "a deleted manual may come back");
    serve::open(&url).await.unwrap().purge(time::OffsetDateTime::now_utc()).await.unwrap();
    assert_eq!(delete(&spare).await.0, Status::NoContent);
    assert_eq!(delete(&spare).await.0, Status::NotFound);
}

#[rocket::async_test]
async fn there_is_an_end_to_what_a_server_keeps() {
    let store = serve::open(&paso_cluster::test_database()).await.unwrap();
    let small = paso_server::store::Quota { manuals: 1, recording_bytes: KETTLE.len() as i64 + 10 };
    let rocket = serve::rocket(store.with_quota(small), 0, &[]);
    let api = Api { client: Client::tracked(rocket).await.unwrap(), database: String::new() };
    api.kettle().await;
    let bring = api.client.post("/api/recordings?name=more.md").header(author("Ann")).body(KETTLE);
    let (status, problem) = read(bring.dispatch().await).await;
    assert_eq!((status.code, problem["type"].as_str()), (507, Some("urn:paso:problem:quota")), "{problem}");
    let (status, problem) = api.post("Ann", "/api/manuals", json!({"title": "Second"})).await;
    assert!(status.code == 507 && problem["detail"].as_str().unwrap().contains("at most 1 manuals"), "{problem}");
}

#[rocket::async_test]
async fn a_bundle_opens_on_another_installation_with_its_recordings_and_revisions() {
    let url = paso_cluster::test_database();
    let here = Api::on(url.clone()).await;
    let id = here.kettle().await;
    publish_anyway(&here, &url, &id).await;
    let answer = here.client.get(format!("/api/manuals/{id}/bundle.zip")).dispatch().await;
    let name = answer.headers().get_one("Content-Disposition").unwrap().to_owned();
    assert!(name.contains("kettle.zip"), "{name}");
    let zip = answer.into_bytes().await.unwrap();

    let there = Api::start().await;
    let import = || there.client.post("/api/bundles").header(author("Ann")).body(zip.clone());
    let (status, made) = read(import().dispatch().await).await;
    assert_eq!((status, made["id"].as_str()), (Status::Created, Some(id.as_str())), "{made}");
    assert_eq!(there.view(&id).await["manual"], here.view(&id).await["manual"]);
    let path = format!("/api/manuals/{id}/listen");
    assert_eq!(there.get(&path).await.1, here.get(&path).await.1, "its recording came along");
    assert_eq!(there.get(&format!("/api/manuals/{id}/revisions/1")).await.1, json!("# Kettle"));
    let (status, again) = read(import().dispatch().await).await;
    assert!(status == Status::Created && again["id"] != made["id"], "a second copy gets an id of its own: {again}");

    let mut doubled = paso_server::bundle::Bundle::open(&zip).unwrap();
    doubled.revisions.push(paso_server::bundle::BundledRevision {
        author: "a\0b".into(),
        number: 2,
        ..doubled.revisions[0].clone()
    });
    let shelf = there.get("/api/manuals").await.1.as_array().unwrap().len();
    let spoilt = there.client.post("/api/bundles").header(author("Ann")).body(doubled.pack().unwrap());
    let (status, problem) = read(spoilt.dispatch().await).await;
    assert_eq!(status, Status::UnprocessableEntity, "{problem}");
    assert_eq!(there.get("/api/manuals").await.1.as_array().unwrap().len(), shelf, "whole or not at all");

    let broken = there.client.post("/api/bundles").header(author("Ann")).body(&zip[..zip.len() / 2]);
    let (status, problem) = read(broken.dispatch().await).await;
    assert_eq!((status, problem["field"].as_str()), (Status::UnprocessableEntity, Some("bundle")), "{problem}");
}

#[rocket::async_test]
async fn a_long_list_of_screws_comes_in_edits_that_fit() {
    let api = Api::start().await;
    let id = api.kettle().await;
    let note = "as the drawing of the supplier has it, ".repeat(5);
    let list = (0..2_500).fold("step,count,drive,note\n".to_owned(), |list, n| format!("{list}1,2,torx,{n} {note}\n"));
    let sent = api.client.post(format!("/api/manuals/{id}/screws")).header(author("Ann")).body(list);
    let (status, read) = read(sent.dispatch().await).await;
    assert_eq!((status, read["changes"].as_i64()), (Status::Ok, Some(10_000)), "a group, and three fields each");
    let edits = read["edits"].as_array().unwrap();
    assert!(edits.len() > 1);
    for (seq, edit) in (0..).zip(edits) {
        let (status, answer) = api.edit("Ann", &id, seq, edit.clone()).await;
        assert_eq!(status, Status::Ok, "{answer}");
    }
    let manual = api.view(&id).await["manual"].clone();
    let brought = manual["fasteners"].as_object().unwrap().values().filter(|g| g["drive"] == "torx" && g["count"] == 2);
    assert!(brought.count() >= 2_500);
}

#[rocket::async_test]
async fn heat_is_worked_out_for_a_seam_and_for_a_trial() {
    let api = Api::start().await;
    let told = "Heat the rear glass with a heating pad at 75 degrees for two minutes. Cut the glue of the rear glass with \
                a pick. Lift off the rear glass.";
    let sent = api.client.post("/api/recordings?name=radio").header(author("Ann")).body(told).dispatch().await;
    let (_, info) = read(sent).await;
    let (_, made) =
        api.post("Ann", "/api/manuals", json!({"title": "R", "device": "", "recordings": [info["id"]]})).await;
    let id = made["id"].as_str().unwrap();
    let seams = api.get(&format!("/api/manuals/{id}/seams")).await.1;
    let row = seams["seams"].as_array().unwrap().iter().find(|s| s["heat"].is_object()).unwrap();
    assert_eq!((row["step_number"].as_i64(), row["heat"]["guessed"].as_bool()), (Some(1), Some(true)));
    assert_eq!(row["heat"]["told"].as_array().unwrap().len(), 1);

    // The same heating by itself comes to the same, and a hotter one is soft sooner.
    let mut asked = row["heat"]["heating"].clone();
    let (status, alone) = api.post("Ann", "/api/heat", asked.clone()).await;
    assert_eq!((status, &alone["judged"]), (Status::Ok, &row["heat"]["told"][0]["judged"]));
    asked["setting_c"] = json!(100.0);
    let hotter = api.post("Ann", "/api/heat", asked.clone()).await.1;
    let soft = |answer: &Value| answer["plan"]["soft_after"][1].as_f64().unwrap();
    assert!(soft(&hotter) < soft(&alone));

    asked["layers"][0]["thickness_mm"] = json!(-1.0);
    let (status, problem) = api.post("Ann", "/api/heat", asked.clone()).await;
    assert_eq!((status, problem["field"].as_str()), (Status::UnprocessableEntity, Some("heating")), "{problem}");
    let edit = json!({"seam": {"set": {"id": row["seam"], "field": {"heating": asked}}}});
    let (status, problem) = api.edit("Ann", id, 0, edit).await;
    assert_eq!(status, Status::UnprocessableEntity, "{problem}");
    assert!(problem["detail"].as_str().unwrap().contains("is no layer"), "{problem}");
}

#[rocket::async_test]
async fn how_a_joint_opens_is_a_picture_once_it_has_an_outline() {
    let api = Api::start().await;
    let told = "Insert the opening pick beside the card slot of the rear glass. Lift off the rear glass.";
    let sent = api.client.post("/api/recordings?name=radio").header(author("Ann")).body(told).dispatch().await;
    let (_, info) = read(sent).await;
    let (_, made) =
        api.post("Ann", "/api/manuals", json!({"title": "R", "device": "", "recordings": [info["id"]]})).await;
    let id = made["id"].as_str().unwrap();
    let row = api.get(&format!("/api/manuals/{id}/seams")).await.1["seams"][0].clone();
    assert_eq!(
        row["opening"]["lines"][0]["text"],
        "Enter beside the card slot of the rear glass with the opening pick."
    );
    let picture = format!("/api/manuals/{id}/seams/{}/opening", row["seam"].as_str().unwrap());
    let (status, problem) = api.get(&picture).await;
    assert_eq!(
        (status, problem["detail"].as_str().unwrap().contains("outline")),
        (Status::NotFound, true),
        "{problem}"
    );
    let (status, _) = api.get(&format!("/api/manuals/{id}/seams/{}/opening", Uuid::nil())).await;
    assert_eq!(status, Status::NotFound);

    let face = Uuid::now_v7();
    let outline = json!({"rectangle": {"width_mm": 80.0, "height_mm": 120.0, "radius_mm": 4.0}});
    let (_, applied) =
        api.edit("Ann", id, 0, json!({"layer": {"add": {"id": face, "name": "Rear", "outline": outline}}})).await;
    let seq = applied["seq"].as_i64().unwrap();
    let on = json!({"seam": {"set": {"id": row["seam"], "field": {"face": face}}}});
    let (_, applied) = api.edit("Ann", id, seq, on).await;
    let place = |words: &str| {
        let mark = row["opening"]["lines"][0]["mark"].clone();
        json!({"seam": {"mark": {"id": row["seam"], "edit": {"place": {"id": mark, "end": "from", "place": {"words": words}}}}}})
    };
    let seq = applied["seq"].as_i64().unwrap();
    let (status, problem) = api.edit("Ann", id, seq, place("left edge, 300 mm from the top")).await;
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(problem["detail"].as_str().unwrap().contains("The left edge is 120 mm long"), "{problem}");
    api.edit("Ann", id, seq, place("left edge, 30 mm from the top")).await;
    let answer = api.client.get(&picture).dispatch().await;
    assert_eq!(answer.content_type(), Some(ContentType::SVG));
    let svg = answer.into_string().await.unwrap();
    assert!(svg.contains("left edge, 30 mm from the top (beside the card slot of the rear glass)"), "{svg}");
}

#[rocket::async_test]
async fn connectors_go_out_as_a_table_and_come_back() {
    let api = Api::start().await;
    let told = "Disconnect the battery cable. Take out the battery. Flip up the latch and disconnect the display flex. Take \
                out the display.";
    let sent = api.client.post("/api/recordings?name=clock").header(author("Ann")).body(told).dispatch().await;
    let (_, info) = read(sent).await;
    let (_, made) =
        api.post("Ann", "/api/manuals", json!({"title": "C", "device": "", "recordings": [info["id"]]})).await;
    let id = made["id"].as_str().unwrap();
    let view = api.get(&format!("/api/manuals/{id}/cables")).await.1;
    assert_eq!(
        (view["cables"].as_array().unwrap().len(), view["power"]["sources"][0]["name"].as_str()),
        (2, Some("battery"))
    );
    let answer = api.client.get(format!("/api/manuals/{id}/cables.csv")).dispatch().await;
    assert_eq!(answer.content_type(), Some(ContentType::CSV));
    let table = answer.into_string().await.unwrap();
    let to = format!("/api/manuals/{id}/cables");
    let bring =
        async |table: String| read(api.client.post(&to).header(author("Ann")).body(table).dispatch().await).await;
    let (status, nothing) = bring(table.clone()).await;
    assert_eq!((status, nothing["changes"].as_i64()), (Status::Ok, Some(0)), "{nothing}");
    let (status, problem) = bring(table.replace("latch that flips up", "glued")).await;
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(problem["rows"][0]["problem"].as_str().unwrap().contains("“glued” is no kind of connector"), "{problem}");
    let (_, read) = bring(table.replace("latch that flips up", "coaxial")).await;
    let (status, applied) = api.edit("Ann", id, 0, read["edits"][0].clone()).await;
    assert_eq!(status, Status::Ok, "{applied}");
    let kinds = api.get(&format!("/api/manuals/{id}/cables")).await.1;
    assert!(kinds["cables"].as_array().unwrap().iter().any(|c| c["kind"] == "coaxial"), "{kinds}");
}

#[rocket::async_test]
async fn hazards_are_told_and_the_ways_of_cables_are_drawn() {
    let api = Api::start().await;
    let told = "Take off the cover. Take out the return spring. Disconnect the fan cable. Take out the fan.";
    let sent = api.client.post("/api/recordings?name=box").header(author("Ann")).body(told).dispatch().await;
    let (_, info) = read(sent).await;
    let (_, made) =
        api.post("Ann", "/api/manuals", json!({"title": "B", "device": "", "recordings": [info["id"]]})).await;
    let id = made["id"].as_str().unwrap();
    let view = api.get(&format!("/api/manuals/{id}/cautions")).await.1;
    let hazards = view["hazards"].as_array().unwrap();
    let spring = hazards.iter().find(|h| h["hazard"] == "spring").unwrap_or_else(|| panic!("{view}"));
    assert_eq!((spring["covered"].as_str(), spring["level"].as_str()), (Some("unsaid"), Some("caution")));
    let (status, taken) = api.edit("Ann", id, 0, spring["finding"]["fixes"][0]["edit"].clone()).await;
    assert_eq!(status, Status::Ok, "{taken}");
    let after = api.get(&format!("/api/manuals/{id}/cautions")).await.1;
    assert!(after["hazards"].as_array().unwrap().iter().any(|h| h["hazard"] == "spring" && h["covered"] == "said"));
    let layer = Uuid::from_u128(5);
    let outline = json!({"rectangle": {"width_mm": 100.0, "height_mm": 60.0, "radius_mm": 0.0}});
    api.edit("Ann", id, 1, json!({"layer": {"add": {"id": layer, "name": "Inside", "outline": outline}}})).await;
    let cables = api.get(&format!("/api/manuals/{id}/cables")).await.1;
    let plug = cables["cables"][0]["connector"].clone();
    let set = |field: Value| json!({"connector": {"set": {"id": plug, "field": field}}});
    api.edit("Ann", id, 2, set(json!({"route": ["behind the post"]}))).await;
    let place = |x_mm: f64| json!({"passes": {"number": 0, "at": {"layer": layer, "x_mm": x_mm, "y_mm": 20.0}}});
    let (status, problem) = api.edit("Ann", id, 3, set(place(140.0))).await;
    assert_eq!(status, Status::UnprocessableEntity);
    assert!(problem["detail"].as_str().unwrap().contains("lies outside “Inside”, which is 100 × 60 mm"), "{problem}");
    assert_eq!(api.edit("Ann", id, 3, set(place(40.0))).await.0, Status::Ok);
    let drawn = api.client.get(format!("/api/manuals/{id}/layers/{layer}/cables")).dispatch().await;
    assert_eq!(drawn.content_type(), Some(ContentType::SVG));
    assert!(drawn.into_string().await.unwrap().contains("Fan: 1 behind the post."));
    let (status, problem) = api.get(&format!("/api/manuals/{id}/layers/{}/cables", Uuid::nil())).await;
    assert_eq!((status, problem["status"].as_i64()), (Status::NotFound, Some(404)), "{problem}");
}

#[rocket::async_test]
async fn figures_and_ids_of_requests_are_told() {
    let api = Api::start().await;
    api.kettle().await;
    api.get(&format!("/api/manuals/{}", Uuid::nil())).await;
    let answer = api.client.get("/metrics").dispatch().await;
    assert!(answer.content_type().unwrap().to_string().starts_with("application/openmetrics-text"));
    let text = answer.into_string().await.unwrap();
    for line in [
        "paso_requests_total{method=\"GET\",status=\"404\"} 1",
        "paso_requests_total{method=\"POST\",status=\"201\"} 2",
        "paso_request_seconds_count 3",
        "paso_readings_now 0",
        "# EOF",
    ] {
        assert!(text.contains(line), "{line} is missing in\n{text}");
    }
    let figure = |name: &str| {
        let line = text.lines().find(|l| l.starts_with(&format!("{name} "))).unwrap_or_else(|| panic!("no {name}"));
        line.rsplit(' ').next().unwrap().parse::<f64>().unwrap()
    };
    // Read when it was brought, drafted when the manual was made, and not read again.
    assert!((figure("paso_readings_total") - 2.0).abs() < 0.1 && figure("paso_database_bytes") > 1e6);
    assert!(figure("paso_database_connections") >= 1.0);

    let given = |id: &'static str| api.client.get("/api/live").header(Header::new("X-Request-Id", id));
    let told = async |id| given(id).dispatch().await.headers().get_one("X-Request-Id").map(str::to_owned).unwrap();
    assert_eq!(told("proxy-0001").await, "proxy-0001");
    assert_ne!(told("no line\tof the log").await, "no line\tof the log");
    assert_eq!(api.client.get("/api/live").dispatch().await.status(), Status::NoContent);
}

#[rstest]
#[case::an_edit_gone("DELETE FROM manual_edits WHERE seq = 2", "its edit 2 of 3 is missing")]
#[case::an_edit_bent("UPDATE manual_edits SET change = '{\"images\": 4}' WHERE seq = 3", "edit 3: invalid type")]
#[case::a_snapshot_bent(
    "UPDATE manuals SET snapshot = '{\"format\": 2}'",
    "its snapshot cannot be read: The manual does not fit its format"
)]
#[case::of_tomorrow("UPDATE manuals SET snapshot = jsonb_set(snapshot, '{format}', '99')", "has format 99")]
#[case::a_ghost("UPDATE manuals SET snapshot = jsonb_set(snapshot, '{parts}', '{}')", "that is not listed")]
#[case::a_recording_bent("UPDATE recordings SET parsed = '[]'", "recording ")]
#[tokio::test(flavor = "multi_thread")]
async fn a_check_finds_what_is_broken(#[case] sql: &str, #[case] says: &str) {
    let url = paso_cluster::test_database();
    let api = Api::on(url.clone()).await;
    let id = api.kettle().await;
    let step = api.view(&id).await["order"][0].clone();
    for n in 0..3 {
        assert_eq!(api.edit("Ann", &id, n, title(&step, &format!("Title {n}"))).await.0, Status::Ok);
    }
    let store = serve::open(&url).await.unwrap();
    assert_eq!(
        paso_server::operate::check(&store).await.unwrap(),
        "1 manual, with edits and revisions: nothing is wrong."
    );
    psql(&url, sql);
    let faults = paso_server::operate::check(&store).await.unwrap_err();
    assert!(faults.contains(says), "{faults}");
}

/// A server on a port of its own, with these bounds.
async fn bounded(places: usize, patience_ms: u64) -> u16 {
    let store = serve::open(&paso_cluster::test_database()).await.unwrap();
    let port = paso_cluster::free_port().unwrap();
    let gate = paso_server::gate::Gate::new(&[]).with_places(places);
    let patience = paso_server::routes::body::Patience(std::time::Duration::from_millis(patience_ms));
    let rocket = serve::rocket_with(store, port, gate, patience).ignite().await.unwrap();
    rocket::tokio::spawn(rocket.launch());
    let live = format!("http://127.0.0.1:{port}/api/live");
    while reqwest::get(&live).await.is_err() {
        rocket::tokio::time::sleep(std::time::Duration::from_millis(20)).await;
    }
    port
}

/// Sends the head of an upload and the first words of its body, and leaves it at that. Rocket itself waits for the first 14
/// bytes of any body, before a word of ours: that is the proxy's business, like a slow head.
async fn dribble(port: u16) -> rocket::tokio::net::TcpStream {
    use rocket::tokio::io::AsyncWriteExt;
    let mut socket = rocket::tokio::net::TcpStream::connect(("127.0.0.1", port)).await.unwrap();
    let head = "POST /api/recordings?name=k HTTP/1.1\r\nHost: localhost\r\nPaso-Author: Ann\r\nContent-Length: 900\r\n\r\nNow I take the cover";
    socket.write_all(head.as_bytes()).await.unwrap();
    socket
}

#[tokio::test(flavor = "multi_thread")]
async fn who_never_ends_a_request_is_turned_away() {
    use rocket::tokio::io::AsyncReadExt;
    let port = bounded(8, 300).await;
    let mut socket = dribble(port).await;
    let mut answer = vec![0; 2_000];
    let n = socket.read(&mut answer).await.unwrap();
    let answer = String::from_utf8_lossy(&answer[..n]).into_owned();
    assert!(answer.starts_with("HTTP/1.1 408") && answer.contains("did not arrive within"), "{answer}");
}

#[tokio::test(flavor = "multi_thread")]
async fn one_request_too_many_is_told_to_come_again_and_a_place_is_given_back() {
    let port = bounded(2, 60_000).await;
    let held = [dribble(port).await, dribble(port).await];
    let ask = async |path: &str| reqwest::get(format!("http://127.0.0.1:{port}{path}")).await.unwrap();
    let busy = async || ask("/api/manuals").await.status().as_u16() == 503;
    while !busy().await {
        rocket::tokio::time::sleep(std::time::Duration::from_millis(20)).await;
    }
    let problem: Value = ask("/api/manuals").await.json().await.unwrap();
    assert_eq!(problem["type"], "urn:paso:problem:busy", "{problem}");
    assert_eq!(ask("/api/live").await.status(), 204, "it lives");
    drop(held);
    while busy().await {
        rocket::tokio::time::sleep(std::time::Duration::from_millis(20)).await;
    }
}
