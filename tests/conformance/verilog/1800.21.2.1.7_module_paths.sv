// IEEE 1800-2017 clause 21.2.1.7: `%m` is the path of who prints
module inner;
  initial begin : told
    $display("%m");
  end
endmodule
module t;
  inner i();
  task hello;
    $display("%m");
  endtask
  initial #1 hello;
endmodule
//> t.i.told
//> t.hello
