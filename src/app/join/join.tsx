"use client";
import { Text } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import { Doorway, NewAccount } from "../_frame/new-account";

/** Somebody was invited: a name and a password of their own, and they are a moderator. */
export function Join() {
  // Behind the #, so that the token is in no request for a page and in no log.
  const [token, setToken] = useState<string | null>(null);
  useEffect(() => setToken(location.hash.slice(1)), []);
  const good = token !== null && /^[A-Za-z0-9_-]{20,64}$/.test(token);
  return (
    <Doorway title="You are invited to help run a channel">
      {token !== null && !good ? (
        <Text mt="3" role="alert">
          This address holds no invitation. Open the whole link that you were sent, to its last letter.
        </Text>
      ) : (
        <>
          <Text mt="2" mb="6" color="inkSoft">
            As a moderator you set up games and run them during the show. Links and connections stay with the owner. The invitation works
            once.
          </Text>
          <NewAccount path="/join" also={{ token }} button="Join" focus />
        </>
      )}
    </Doorway>
  );
}
