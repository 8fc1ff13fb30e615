// IEEE 1800-2017 clause 7.10: elements with strings go in and come out as they are
module t;
  typedef struct { string name; int n; real r; } item_t;
  item_t q[$], got;
  function automatic item_t made(string name, int n);
    item_t i;
    i.name = name;
    i.n = n;
    i.r = n / 2.0;
    return i;
  endfunction
  task automatic show(item_t i);
    $display("%s %0d %g", i.name.toupper(), i.n, i.r);
  endtask
  initial begin
    q.push_back(made("gate", 3));
    q.push_back('{"lock", 4, 1.5});
    q[0].r += 1.0;
    show(q[0]);
    got = q.pop_back();
    show(got);
    $display("%p", q);
    case (q[0].name)
      "lock": $display("lock");
      "gate": $display("gate");
    endcase
  end
endmodule
//> GATE 3 2.5
//> LOCK 4 1.5
//> '{'{name:"gate", n:3, r:2.5}}
//> gate
