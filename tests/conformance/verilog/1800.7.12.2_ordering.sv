// IEEE 1800-2017 clause 7.12.2: elements are sorted by themselves, or by what is asked of each
module t;
  int q[$] = {5, -4, 9, 1};
  string s[$] = {"pump", "gate", "sea"};
  initial begin
    q.sort(); $display("%p", q);
    q.rsort(); $display("%p", q);
    q.sort with (item * item); $display("%p", q);
    q.reverse(); $display("%p", q);
    s.sort(); $display("%p", s);
    s.sort(x) with (x.len()); $display("%s", s[0]);
  end
endmodule
//> '{-4, 1, 5, 9}
//> '{9, 5, 1, -4}
//> '{1, -4, 5, 9}
//> '{9, 5, -4, 1}
//> '{"gate", "pump", "sea"}
//> sea
