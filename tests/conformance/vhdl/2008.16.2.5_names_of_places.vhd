-- IEEE 1076-2008 clause 16.2.5: 'path_name and 'instance_name say where something stands
entity sub is
  port (a : in bit);
end;
architecture x of sub is
begin
  process
  begin
    report a'path_name & " " & a'instance_name & " " & a'simple_name;
    wait;
  end process;
end;
entity t is end;
architecture a of t is
  signal s : bit;
begin
  u : entity work.sub port map (s);
end;
--> note: :t:u:a :t(a):u@sub(x):a a
