-- IEEE 1076-1993 clauses 9.5.1, 9.7 and 5.2: a ring of registers made by generate, conditional assignment at an edge, targets that are aggregates
library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity dff is port (d, clk, rst : in std_logic; q, qn : out std_logic); end entity dff;
architecture b of dff is
  signal s : std_logic := '0';
begin
  s <= '0' when rst = '1' else d when rising_edge(clk);
  q <= s; qn <= not s;
end architecture b;
library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity ring_bench is end;
architecture t of ring_bench is
  signal clk, rst : std_logic := '0'; signal x : std_logic_vector(3 downto 0); signal fb : std_logic;
  component dff is port (d, clk, rst : in std_logic; q, qn : out std_logic); end component;
  signal sr : std_logic_vector(2 downto 0);
  type arr is array (0 to 1) of unsigned(3 downto 0);
  signal m : arr := (x"3", x"C");
  procedure check(cond : boolean; msg : string; sev : severity_level := error) is
  begin
    if not cond then report "FAIL " & msg severity sev; else report "ok " & msg; end if;
  end;
begin
  ring : for i in x'range generate
    first : if i = 0 generate u : dff port map (d => fb, clk => clk, rst => rst, q => x(0), qn => open); end generate;
    rest : if i > 0 generate u : dff port map (x(i-1), clk, rst, x(i)); end generate;
  end generate;
  fb <= not x(3);
  (sr(2), sr(1), sr(0)) <= std_logic_vector'(x(0) & x(1) & x(2));
  stim : process
    procedure tick is begin clk <= '1'; wait for 5 ns; clk <= '0'; wait for 5 ns; end;
    variable seed : unsigned(7 downto 0) := x"01";
  begin
    rst <= '1'; wait for 2 ns; rst <= '0'; wait for 2 ns;
    for i in 1 to 9 loop
      tick;
      report integer'image(i) & " " & to_string(x) & " " & to_string(sr);
    end loop;
    m(0) <= m(0) + m(1); m(1)(3 downto 2) <= "01"; wait for 0 ns;
    check(m(0) = 15, "sum"); check(m(1) = 4, "slice"); check(to_integer(m(0)) mod 4 = 3, "mod");
    seed := seed(6 downto 0) & (seed(7) xor seed(5));
    check(seed = 2, "seed", warning);
    check(false, "last", note);
    wait;
  end process;
end;
--> note: 1 0001 100
--> note: 2 0011 110
--> note: 3 0111 111
--> note: 4 1111 111
--> note: 5 1110 011
--> note: 6 1100 001
--> note: 7 1000 000
--> note: 8 0000 000
--> note: 9 0001 100
--> note: ok sum
--> note: ok slice
--> note: ok mod
--> note: ok seed
--> note: FAIL last
