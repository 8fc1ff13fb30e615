// IEEE 1800-2017 clause 7.12.1: what is asked in `with` finds elements, or their places
module t;
  int q[$] = {5, 4, 9, 1, 9}, r[$];
  initial begin
    r = q.find with (item > 4); $display("%p", r);
    r = q.find_index(x) with (x == 9); $display("%p", r);
    r = q.find_first with (item < 5); $display("%p", r);
    r = q.find_last_index with (item > 100); $display("%p", r);
    r = q.find with (item.index < 2); $display("%p", r);
    r = q.max(); $display("%p", r);
    r = q.min with (-item); $display("%p", r);
    r = q.unique(); $display("%p", r);
  end
endmodule
//> '{5, 9, 9}
//> '{2, 4}
//> '{4}
//> '{}
//> '{5, 4}
//> '{9}
//> '{9}
//> '{5, 4, 9, 1}
