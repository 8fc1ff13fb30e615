// IEEE 1800-2017 clause 7.10: elements of a queue may be structures, whose members are read and written
module t;
  typedef struct { int id; logic [7:0] data; } packet;
  packet q[$], p;
  int r[$];
  initial begin
    q.push_back('{1, 8'h11});
    p = '{2, 8'h22};
    q.push_back(p);
    q[0].data = 8'h33;
    q[1].id++;
    $display("%p", q);
    $display("%h %0d", q[0].data[7:4], q[$].id);
    r = q.find_index with (item.id == 3);
    $display("%p", r);
  end
endmodule
//> '{'{id:1, data:51}, '{id:3, data:34}}
//> 3 3
//> '{1}
