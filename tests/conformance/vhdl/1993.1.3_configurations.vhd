-- IEEE 1076-1993 clauses 1.3 and 5.2: configuration specifications and declarations choose entity and architecture
entity part is port (y : out integer); end entity;
architecture one of part is begin y <= 1; end architecture;
architecture two of part is begin y <= 2; end architecture;
entity other_part is port (z : out integer); end entity;
architecture only of other_part is begin z <= 30; end architecture;
entity configurations is end entity;
architecture test of configurations is
  component part is port (y : out integer); end component;
  component renamed is port (r : out integer); end component;
  for u1 : part use entity work.part(one);
  for others : part use entity work.part(two);
  for all : renamed use entity work.other_part(only) port map (z => r);
  signal a, b, c, d : integer;
begin
  u1 : part port map (a);
  u2 : part port map (b);
  u3 : renamed port map (c);
  u4 : entity work.part(one) port map (d);
  process begin
    wait for 1 ns;
    report integer'image(a) & integer'image(b) & integer'image(c) & integer'image(d);
    wait;
  end process;
end architecture;
--> note: 12301
