-- IEEE 1076-1993 clause 1.3: a configuration of the whole design, down into an instance
entity leaf is port (y : out integer); end entity;
architecture one of leaf is begin y <= 1; end architecture;
architecture two of leaf is begin y <= 2; end architecture;
entity middle is port (y : out integer); end entity;
architecture plain of middle is
  component leaf is port (y : out integer); end component;
begin
  l : leaf port map (y);
end architecture;
entity top is end entity;
architecture test of top is
  component middle is port (y : out integer); end component;
  signal a, b : integer;
begin
  m1 : middle port map (a);
  m2 : middle port map (b);
  process begin
    wait for 1 ns;
    report integer'image(a) & " " & integer'image(b);
    wait;
  end process;
end architecture;
configuration chosen of top is
  for test
    for m1 : middle use entity work.middle(plain);
      for plain
        for l : leaf use entity work.leaf(one); end for;
      end for;
    end for;
    for m2 : middle use entity work.middle(plain);
      for plain
        for all : leaf use entity work.leaf(two); end for;
      end for;
    end for;
  end for;
end configuration chosen;
--> note: 1 2
